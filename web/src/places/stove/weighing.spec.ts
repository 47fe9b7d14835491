// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { clientOver, demo, demoServer, fresh, mounted, wire } from '@/testing'
import Weighing from './Weighing.vue'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
beforeEach(() => {
  fresh()
  sessionStorage.clear()
  wire.answer = demoServer
})
afterEach(() => {
  document.body.innerHTML = ''
})
const batch = () => structuredClone(demo('GET /api/stove/{batch_id}')) as Schemas['BatchOut']

describe('the end of a batch', () => {
  it('keeps what was said when the page is left and come back to', async () => {
    const first = await mounted(Weighing, { batch: batch() })
    await first.inside.get('input[aria-label="Weighed"]').setValue('2310')
    await first.inside.findAll('[role="radiogroup"] button').at(-1)!.trigger('click')
    first.page.unmount()
    const again = await mounted(Weighing, { batch: batch() })
    expect((again.inside.get('input[aria-label="Weighed"]').element as HTMLInputElement).value).toBe('2310')
    expect(again.inside.findAll('[aria-checked="true"]').length).toBeGreaterThan(0)
  })
  it('is another for another batch', async () => {
    const first = await mounted(Weighing, { batch: batch() })
    await first.inside.get('input[aria-label="Weighed"]').setValue('2310')
    first.page.unmount()
    const other = await mounted(Weighing, { batch: { ...batch(), id: 987 } })
    expect((other.inside.get('input[aria-label="Weighed"]').element as HTMLInputElement).value).toBe('')
  })
  it('forgets it once it is written down, and keeps it where that is refused', async () => {
    const page = await mounted(Weighing, { batch: batch() })
    await page.inside.get('input[aria-label="Weighed"]').setValue('lots')
    const stored = () => sessionStorage.getItem(`kestrel.weighing.${batch().id}`) ?? ''
    wire.answer = (path, body, method) =>
      path === '/api/journal'
        ? { status: 422, body: { problems: [{ field: 'weighed', message: 'is no weight', remedy: 'Give g' }] } }
        : demoServer(path, body, method)
    await page.inside.get('form').trigger('submit')
    await vi.waitFor(() => expect(page.text()).toContain('is no weight'))
    expect(stored()).toContain('lots')
    wire.answer = (path, body, method) =>
      path === '/api/journal' ? { status: 201, body: {} } : demoServer(path, body, method)
    await page.inside.get('form').trigger('submit')
    await vi.waitFor(() => expect(stored()).not.toContain('lots'))
  })
})
