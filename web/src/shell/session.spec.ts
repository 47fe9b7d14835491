// @vitest-environment happy-dom
/** Who is signed in, with and without the server; what stays on the device. */
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { clientOver, demoServer, fresh, kept, wire } from '@/testing'

vi.mock('@/api/client', async (original) => clientOver(await original()))

const { useSession } = await import('./session')
function started() {
  setActivePinia(createPinia())
  return useSession()
}
beforeEach(() => {
  fresh()
  wire.answer = demoServer
})

describe('the session', () => {
  it('opens without the server as it was when it was last there', async () => {
    await started().know()
    wire.answer = () => {
      throw new TypeError('no network')
    }
    const after = started()
    await after.know()
    expect(after.who?.username).toBeTruthy()
    expect(after.grades.length).toBeGreaterThan(3)
  })
  it('lets nobody in whom the server does not know any more, and keeps unsaved drafts', async () => {
    await started().know()
    localStorage.setItem('kestrel.sauce.3', 'a draft')
    wire.answer = () => ({ status: 200, body: { username: null, kitchen: null } })
    await started().know()
    expect(kept.has('kestrel.session')).toBe(false)
    expect(kept.get('kestrel.sauce.3')).toBe('a draft')
  })
})
