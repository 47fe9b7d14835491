import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Sheet, Worked } from '@/api/client'
import { useDraft, type Draft, type LooseSheet } from './draft'

type Reply = { status: number; body: unknown }
const kept = new Map<string, string>()
const asked: { path: string; body: LooseSheet }[] = []
let answer: (path: string, body: LooseSheet) => Reply | Promise<Reply>

// The client's own reading of answers stays; only the wire is ours.
vi.mock('@/api/client', async (original) => {
  const call = async (path: string, init?: { body?: LooseSheet }) => {
    const body = JSON.parse(JSON.stringify(init?.body ?? {})) as LooseSheet
    asked.push({ path, body })
    const { status, body: said } = await answer(path, body)
    const response = new Response(null, { status })
    return response.ok ? { data: said, response } : { error: said, response }
  }
  return { ...(await original<object>()), api: { GET: call, POST: call, PUT: call } }
})

function worked(sheet: LooseSheet): Worked {
  return { sheet, final: {}, steps: [], cards: [], changes: [] } as unknown as Worked
}
const sauce = (flour: number | string) => ({ name: 'x', steps: [{ op: 'dust', amount: flour }] })
const refused = (field: string) => ({
  status: 422,
  body: { problems: [{ field, message: 'is wrong', remedy: 'Mend it' }] },
})

let draft: Draft
const scope = effectScope()
beforeEach(async () => {
  kept.clear()
  asked.length = 0
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  })
  answer = (_, body) => ({ status: 200, body: worked(body.sheet) })
  draft = scope.run(() => useDraft())!
  await draft.start(sauce(80) as unknown as Sheet, true)
})
afterEach(() => vi.unstubAllGlobals())

const flour = () => (draft.sheet.value.steps as { amount: unknown }[])[0]!.amount
const set = (amount: number | string) => (s: LooseSheet) => (s.steps[0].amount = amount)

describe('the draft', () => {
  it('sends the whole sheet and takes what the core made of it', async () => {
    await draft.edit(set(90))
    expect(asked.at(-1)?.path).toBe('/api/work/check')
    expect(flour()).toBe(90)
    expect(draft.dirty.value).toBe(true)
  })
  it('keeps refused text in its field, with the last good picture', async () => {
    answer = () => refused('steps[0].amount.value')
    await draft.edit(set('lots'))
    expect(flour()).toBe('lots')
    expect(draft.problemAt('steps[0].amount')?.message).toBe('is wrong')
    expect(draft.problemAt('steps[1]')).toBeNull()
    expect(JSON.stringify(draft.worked.value?.sheet)).toContain('80')
    expect(await draft.save()).toBeNull()
    expect(kept.get('kestrel.draft.new')).toContain('lots')
  })
  it('undoes and redoes, and counts typing in one field as one change', async () => {
    await draft.edit(set(8), '0.amount')
    await draft.edit(set(85), '0.amount')
    expect(draft.past.value).toHaveLength(1)
    draft.undo()
    await vi.waitFor(() => expect(flour()).toBe(80))
    draft.redo()
    await vi.waitFor(() => expect(flour()).toBe(85))
  })
  it('drops what was overtaken while the core was busy', async () => {
    let release: () => void = () => undefined
    const gate = new Promise<void>((done) => (release = done))
    answer = async (_, body) => {
      await gate
      return { status: 200, body: worked(body.sheet) }
    }
    const first = draft.edit(set(81))
    void draft.edit(set(82))
    const last = draft.edit(set(83))
    release()
    await Promise.all([first, last])
    expect(flour()).toBe(83)
    const sent = asked.slice(1).map(({ body }) => body.sheet.steps[0].amount)
    expect(sent).toEqual([81, 83])
  })
  it('says it when the server is gone, and loses nothing', async () => {
    answer = () => Promise.reject(new TypeError('no network'))
    await draft.edit(set(70))
    expect(draft.trouble.value).toContain('does not answer')
    expect(flour()).toBe(70)
  })
  it('aims with what it serves, follows schools, and tells what changed', async () => {
    await draft.aim(undefined, { serves: { use: 'nap', count: 10 } })
    expect(asked.at(-1)).toMatchObject({ path: '/api/work/solve', body: { serves: { use: 'nap' } } })
    answer = (_, body) => ({ status: 200, body: { ...worked(body.sheet), changes: ['fat 9 → 10 %'] } })
    await draft.follow('fat-to-flour', 'more-fat')
    expect(asked.at(-1)).toMatchObject({ path: '/api/work/switch', body: { choice: 'more-fat' } })
    expect(draft.changes.value).toEqual(['fat 9 → 10 %'])
  })
  it('saves, then meets another window, and saves on top of it', async () => {
    answer = (path, body) =>
      path === '/api/sauces'
        ? { status: 201, body: { id: 7, version: 1, sheet: body.sheet } }
        : { status: 200, body: worked(body.sheet) }
    expect((await draft.save())?.id).toBe(7)
    expect(draft.dirty.value).toBe(false)
    await draft.edit(set(60))
    const conflict = { message: 'taken', version: 2, differences: [], sheet: sauce(99) }
    answer = (path, body) => {
      if (!path.startsWith('/api/sauces')) return { status: 200, body: worked(body.sheet) }
      return body.base_version === 2
        ? { status: 200, body: { id: 7, version: 3, sheet: body.sheet } }
        : { status: 409, body: conflict }
    }
    expect(await draft.save()).toBeNull()
    expect(draft.conflict.value?.version).toBe(2)
    expect((await draft.save(2))?.version).toBe(3)
    expect(draft.conflict.value).toBeNull()
  })
})
