// @vitest-environment happy-dom
/** What is done at a pot reaches the server once, in order, whatever happens to the network. */
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { clientOver, demo, fresh, kept, wire, type Loose } from '@/testing'
import type { Batch } from './acts'
import { anotherDevice, recallAll } from './keep'

vi.mock('@/api/client', async (original) => clientOver(await original()))

const { useActs } = await import('./acts')
const { useSession } = await import('./session')
const batch = () => demo('GET /api/stove/{batch_id}') as Batch
const go = (from_step: number, to_step: number) => ({ kind: 'go' as const, from_step, to_step })

/** A server that takes acts once, in the order they come. */
function server() {
  const taken: string[] = []
  let step = 0
  return {
    taken,
    answer(path: string, body: Loose) {
      if (path !== '/api/stove/{batch_id}/acts') return { status: 200, body: { ...batch(), step } }
      for (const act of body.acts)
        if (!taken.includes(act.key)) {
          taken.push(act.key)
          if (act.kind === 'go') step = act.to_step
        }
      const acts = body.acts.map((act: Loose) => ({ key: act.key, taken: true, why: '' }))
      return { status: 200, body: { acts, batch: { ...batch(), step, revision: 1 + taken.length } } }
    },
  }
}
/** A fresh start of the interface, with what this device has kept. */
function started() {
  setActivePinia(createPinia())
  return useActs()
}
const silent = () => {
  throw new TypeError('no network')
}

beforeEach(fresh)

describe('acts', () => {
  it('are shown at once and sent in order', async () => {
    const { answer, taken } = server()
    wire.answer = answer
    const acts = started()
    await acts.load(batch().id)
    const first = acts.does(batch().id, go(0, 1))
    expect(acts.shown(batch().id)!.step).toBe(1)
    const second = acts.does(batch().id, go(1, 2))
    await Promise.all([first.sent, second.sent])
    expect(acts.shown(batch().id)!.step).toBe(2)
    expect(taken).toHaveLength(2)
    expect(acts.waiting).toBe(0)
  })

  it('carry who did them, and wait for whose sign-in it was: nobody else sends them', async () => {
    const { answer, taken } = server()
    const bodies: Loose[] = []
    const signedIn = (session_id: number, id: number, called: string) => {
      useSession().who = { ...demo('GET /api/accounts/me'), session_id, id, called } as never
    }
    wire.answer = silent
    let acts = started()
    signedIn(1, 7, 'Tove')
    acts.keep(batch())
    await acts.does(batch().id, go(0, 1)).sent
    expect(taken).toHaveLength(0)

    acts = started()
    signedIn(2, 8, 'Runa')
    wire.answer = (path, body) => {
      if (path === '/api/stove/{batch_id}/acts') bodies.push(...body.acts)
      return answer(path, body)
    }
    acts.keep(batch())
    await acts.send()
    expect(bodies).toHaveLength(0)
    expect([acts.waiting, acts.others]).toEqual([0, ['Tove']])

    signedIn(1, 9, 'Odd')
    await acts.send()
    expect(bodies.map((act) => act.done_by)).toEqual([7])
    expect(acts.others).toEqual([])
  })

  it('wait without a network, through a reload, and then come once', async () => {
    const { answer, taken } = server()
    wire.answer = answer
    const before = started()
    await before.load(batch().id)
    wire.answer = silent
    await before.does(batch().id, go(0, 1)).sent
    await before.does(batch().id, { kind: 'timer-on', name: 'step', seconds: 90 }).sent
    expect(before.offline).toBe(true)
    expect(before.waiting).toBe(2)

    const after = started() // reloaded: the server is still away
    await after.load(batch().id)
    expect(after.shown(batch().id)!.step).toBe(1)
    expect(after.shown(batch().id)!.timers[0]!.seconds).toBe(90)

    wire.answer = answer
    await after.send()
    await after.send()
    expect(taken).toHaveLength(2)
    expect(after.waiting).toBe(0)
    expect(after.offline).toBe(false)
  })

  it('can be taken back before the server has them, a step that was left out too', async () => {
    const { answer, taken } = server()
    wire.answer = answer
    const acts = started()
    await acts.load(batch().id)
    wire.answer = silent
    const shown = () => acts.shown(batch().id)!
    const [planned, before] = [shown().cards[0]!, shown().acts.length]
    const { field } = planned.weighed[0]!
    const put = acts.does(batch().id, { kind: 'put', step: 0, field, grams: 12 })
    await put.sent
    expect(shown().cards[0]!.weighed[0]!.amount).toEqual({ value: 12, unit: 'g' })
    const left = acts.does(batch().id, { kind: 'skipped', step: 0 })
    await left.sent
    expect(shown().cards[0]).toMatchObject({ left_out: true, weighed: [] })
    expect(shown().acts).toHaveLength(before + 2)
    await acts.does(batch().id, { kind: 'undone', of: left.key }).sent
    await acts.does(batch().id, { kind: 'undone', of: put.key }).sent
    expect(shown().cards[0]).toEqual(planned)
    expect(shown().acts).toHaveLength(before)
    wire.answer = answer
    await acts.send()
    expect(taken).toHaveLength(4)
  })

  it('whose answer was lost are sent again, with the same key', async () => {
    const { answer, taken } = server()
    wire.answer = answer
    const acts = started()
    await acts.load(batch().id)
    wire.answer = (path, body) => {
      answer(path, body)
      return silent()
    }
    await acts.does(batch().id, go(0, 1)).sent
    wire.answer = answer
    await acts.send()
    expect(taken).toHaveLength(1)
    const keys = wire.asked.filter((one) => one.path.endsWith('/acts')).map((one) => one.body.acts[0].key)
    expect(new Set(keys).size).toBe(1)
  })

  it('lose none for the fault of another, where it is not said which is refused', async () => {
    const { answer, taken } = server()
    wire.answer = answer
    const acts = started()
    await acts.load(batch().id)
    wire.answer = silent
    await acts.does(batch().id, go(0, 1)).sent
    await acts.does(batch().id, { kind: 'noted', text: 'half a sign', tasted: false }).sent
    await acts.does(batch().id, go(1, 2)).sent
    for (const field of ['sheet', 'acts.1.noted.text']) {
      wire.answer = (path: string, body: Loose) =>
        path === '/api/stove/{batch_id}/acts' && body.acts.some((act: Loose) => act.kind === 'noted')
          ? { status: 422, body: { problems: [{ field, message: 'holds no character', remedy: 'Take it out' }] } }
          : answer(path, body)
      await acts.send()
      expect(acts.waiting).toBe(0)
      expect(taken).toHaveLength(field === 'sheet' ? 2 : 4)
      wire.answer = silent
      await acts.does(batch().id, go(0, 1)).sent
      await acts.does(batch().id, { kind: 'noted', text: 'half a sign', tasted: false }).sent
      await acts.does(batch().id, go(1, 2)).sent
    }
    expect(acts.told.filter((one) => one.why.includes('holds no character'))).toHaveLength(2)
  })

  it('that make no sense are told and hold up nothing', async () => {
    const { answer, taken } = server()
    wire.answer = silent
    const acts = started()
    await acts.does(batch().id, go(0, 99)).sent
    await acts.does(batch().id, go(0, 1)).sent
    wire.answer = (path, body) =>
      body.acts?.[0]?.to_step === 99
        ? { status: 422, body: { problems: [{ field: 'acts[0].to_step', message: 'is no step', remedy: 'Go on' }] } }
        : answer(path, body)
    await acts.send()
    expect(taken).toHaveLength(1)
    expect(acts.waiting).toBe(0)
    expect(acts.told[0]!.why).toContain('is no step')
  })

  it('are not lost where the device keeps nothing', async () => {
    const { answer, taken } = server()
    wire.answer = silent
    const acts = started()
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new DOMException('full', 'QuotaExceededError')
      },
    })
    anotherDevice()
    await acts.does(batch().id, go(0, 1)).sent
    await acts.does(batch().id, go(1, 2)).sent
    expect(acts.waiting).toBe(2)
    wire.answer = answer
    await acts.send()
    expect(taken).toHaveLength(2)
    expect(acts.waiting).toBe(0)
  })

  it('of another window of this device are not lost', async () => {
    wire.answer = silent
    const here = started()
    await here.does(batch().id, go(0, 1))
    const there = started()
    await there.does(batch().id, go(1, 2)).sent
    await here.does(batch().id, go(2, 3)).sent
    const { answer, taken } = server()
    wire.answer = answer
    const later = started()
    await later.ready
    expect(later.waiting).toBe(3)
    await later.send()
    expect(taken).toHaveLength(3)
    expect(await recallAll('act.')).toEqual([])
  })

  it('that waited before they were kept in the database are taken over', async () => {
    const old = { batch: batch().id, act: { ...go(0, 1), key: 'of-before', at: new Date().toISOString() } }
    kept.set('kestrel.acts', JSON.stringify([old]))
    const { answer, taken } = server()
    wire.answer = answer
    const acts = started()
    await acts.ready
    await acts.send()
    expect(taken).toEqual(['of-before'])
    expect(kept.has('kestrel.acts')).toBe(false)
  })
})
