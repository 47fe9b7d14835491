// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { clientOver, demo, demoServer, fresh, mounted, wire, type Loose } from '@/testing'
import Batch from './Batch.vue'
import Stove from './Stove.vue'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
beforeEach(() => {
  fresh()
  wire.answer = demoServer
})
afterEach(() => {
  document.body.innerHTML = ''
})
const batch = () => demo('GET /api/stove/{batch_id}') as Schemas['BatchOut']
const free = () => demo('POST /api/stove/free') as Schemas['BatchOut']
const aside = () => demo('POST /api/stove/asides') as Schemas['BatchOut']
/** Every act that was sent, in order. */
const acts = () =>
  wire.asked
    .filter((one) => one.path === '/api/stove/{batch_id}/acts')
    .flatMap((one) => (one.body as Loose).acts as Loose[])
/** The server with this pot in the place of the demo's, which takes every act. */
const withPot = (pot: Schemas['BatchOut']) => {
  wire.answer = (path, body, by) => {
    if (path === '/api/stove/{batch_id}' && by === 'GET') return { status: 200, body: pot }
    if (path === '/api/stove/{batch_id}/acts') {
      const taken = (body as Loose).acts.map((act: Loose) => ({ key: act.key, taken: true, why: '' }))
      return { status: 200, body: { acts: taken, batch: { ...pot, revision: pot.revision + 1 } } }
    }
    return demoServer(path, body, by)
  }
}

describe('the map of the hob', () => {
  it('shows every ring, and who stands where', async () => {
    const line = { ...(demo('GET /api/stove') as unknown as Schemas['BatchLine'][])[0]! }
    const { rings } = demo('GET /api/stove/hob') as Schemas['Hob']
    wire.answer = (path, body, by) =>
      path === '/api/stove' && by === 'GET'
        ? {
            status: 200,
            body: [
              { ...line, ring: rings[0]!.name, cook: 'Tove' },
              { ...line, id: 99, name: 'Other' },
            ],
          }
        : demoServer(path, body, by)
    const { text } = await mounted(Stove)
    for (const ring of rings) expect(text()).toContain(ring.name)
    expect(text()).toContain('Tove')
    expect(text()).toContain('On no ring')
    expect(text()).toContain('free')
  })
  it('has the ways of the library for what is no sauce', async () => {
    wire.answer = (path, body, by) =>
      path === '/api/stove' && by === 'GET' ? { status: 200, body: [] } : demoServer(path, body, by)
    const { press, field, inside } = await mounted(Stove)
    await press('Fish, pasta, oven…')
    expect(inside.find('[aria-label="What is it?"]').exists()).toBe(true)
    await field('Minutes it takes').setValue('6')
    expect(inside.findAll('[role=radio]').length).toBe((demo('GET /api/stove/hob') as Schemas['Hob']).ways.length)
  })
})

describe('a pot cooked free hand', () => {
  it('takes what goes in, in the unit shown or as it is written', async () => {
    withPot(free())
    const { press, field } = await mounted(Batch, { id: free().id })
    await press('Pour or put in')
    await field('How much of Whole milk').setValue('500')
    await press('It is in')
    await press('Pour or put in')
    await field('How much of Whole milk').setValue('2 ladles')
    await press('It is in')
    const puts = acts().map((act) => act.put)
    expect(puts[0]).toMatchObject({ op: 'add', ingredient: 'milk-whole', amount: { value: '500', unit: 'g' } })
    expect(puts[1].amount).toBe('2 ladles')
  })
  it('cannot be weighed before anything is in it', async () => {
    withPot(free())
    const { inside, text } = await mounted(Batch, { id: free().id })
    const done = inside.findAll('button').find((one) => one.text() === 'Done. Weigh and judge')
    expect(done!.attributes('disabled')).toBeDefined()
    expect(text()).toContain('Press what goes in first')
  })
  it('is shown at once with what is on its way', async () => {
    withPot(free())
    wire.answer = ((answer) => (path: string, body: unknown, by: string) =>
      path === '/api/stove/{batch_id}/acts' ? { status: 503, body: {} } : answer(path, body as Loose, by))(wire.answer)
    const { press, field, text } = await mounted(Batch, { id: free().id })
    await press('Fat and flour')
    await field('How much of Butter, unsalted').setValue('60')
    await field('How much of Wheat flour, plain').setValue('60')
    await press('It is in')
    expect(text()).toContain('Roux')
    expect(text()).not.toContain('Press what goes in first')
  })
})

describe('what went in', () => {
  it('is told by the jug, before and after', async () => {
    withPot(batch())
    const { press, field, inside } = await mounted(Batch, { id: batch().id })
    await inside.get('.much').trigger('click')
    await press('By the jug')
    await flushPromises()
    const name = batch().cards[0]!.weighed[0]!.name
    await field(`The jug held, mL of ${name}`).setValue('1000')
    const after = inside.findAll('input').find((one) => one.attributes('aria-label') === `mL left, ${name}`)!
    await after.setValue('1200')
    const say = inside.findAll('button').find((one) => one.text() === 'went in')!
    expect(say.attributes('disabled')).toBeDefined() // more than was in it
    await after.setValue('200')
    await press('went in')
    expect(acts().find((act) => act.kind === 'poured')).toMatchObject({ how: 'jug', before: 1000, after: 200 })
  })
})

describe('a pan beside the pots', () => {
  it('goes on by itself: the next timer runs at once', async () => {
    withPot(aside())
    const { press, text } = await mounted(Batch, { id: aside().id })
    expect(text()).not.toContain('Fix it')
    await press('Done. Next: Hake: turn')
    const mine = acts().filter((act) => ['go', 'timer-on'].includes(act.kind))
    expect(mine.map((act) => act.kind)).toEqual(['go', 'timer-on'])
    expect(mine[1]!.seconds).toBe(aside().cards[1]!.timer_s)
  })
})
