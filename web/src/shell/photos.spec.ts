// @vitest-environment happy-dom
/** Photographs reach the server once, as those of who took them, whatever happens to network and sign-in. */
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { clientOver, demo, demoServer, fresh, refused, wire, type Loose } from '@/testing'

vi.mock('@/api/client', async (original) => clientOver(await original()))

const { usePhotos } = await import('./photos')
const { useSession } = await import('./session')

const signedIn = (session_id: number, id: number, called: string) => {
  useSession().who = { ...demo('GET /api/accounts/me'), session_id, id, called } as never
}
/** A server that takes photographs; what it was sent. */
function taking() {
  const bodies: Loose[] = []
  wire.answer = (path, body, method) => {
    if (!path.endsWith('/photos')) return demoServer(path, body, method)
    bodies.push(body)
    return { status: 201, body: {} }
  }
  return bodies
}
const silent = () => {
  throw new TypeError('no network')
}
beforeEach(() => {
  fresh()
  setActivePinia(createPinia())
})
afterEach(() => usePhotos().$dispose())

it('wait for the network and for whose sign-in it was: nobody else sends them', async () => {
  const photos = usePhotos()
  signedIn(1, 7, 'Tove')
  wire.answer = silent
  photos.take(3, 1, new Blob(['a']))
  await photos.send()
  expect(photos.troubles.get(3)).toBeTruthy()
  expect(photos.of(3)).toHaveLength(1)

  signedIn(2, 8, 'Runa')
  const bodies = taking()
  await photos.send()
  expect(bodies).toEqual([])
  expect([photos.of(3), photos.others]).toEqual([[], ['Tove']])

  signedIn(1, 9, 'Odd') // the same sign-in, another cook at it by now
  await photos.send()
  await photos.send()
  expect(bodies.map(({ step, done_by }) => [step, done_by])).toEqual([[1, 7]])
  expect([photos.waiting, photos.others, photos.troubles.size]).toEqual([[], [], 0])
})

it('which make no sense are told and let go, and hold up none behind them', async () => {
  const photos = usePhotos()
  signedIn(1, 7, 'Tove')
  const bodies = taking()
  const takes = wire.answer
  wire.answer = (path, body, method) =>
    path.endsWith('/photos') && body.step === 9 ? refused('step') : takes(path, body, method)
  photos.take(3, 9, new Blob(['a']))
  photos.take(4, 1, new Blob(['b']))
  await photos.send()
  expect(bodies.map(({ step }) => step)).toEqual([1])
  expect(photos.waiting).toEqual([])
  expect([photos.troubles.has(3), photos.troubles.has(4)]).toEqual([true, false])
  photos.take(3, 1, new Blob(['c']))
  expect(photos.troubles.has(3)).toBe(false)
})

it('ask before the page is closed over one that is not there yet', () => {
  const photos = usePhotos()
  const closing = () => {
    const event = new Event('beforeunload', { cancelable: true })
    window.dispatchEvent(event)
    return event.defaultPrevented
  }
  expect(closing()).toBe(false)
  photos.take(3, 1, new Blob(['a']))
  expect(closing()).toBe(true)
})
