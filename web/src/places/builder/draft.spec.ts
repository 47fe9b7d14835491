import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Sheet, Worked } from '@/api/client'
import { clientOver, fresh, kept, refused, wire } from '@/testing'
import { useDraft, type Draft, type LooseSheet } from './draft'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
const { asked } = wire

function worked(sheet: LooseSheet): Worked {
  return { sheet, final: {}, steps: [], cards: [], changes: [] } as unknown as Worked
}
const sauce = (flour: number | string) => ({ name: 'x', steps: [{ op: 'dust', amount: flour }] })
let draft: Draft
const scope = effectScope()
beforeEach(async () => {
  fresh()
  wire.answer = (_, body) => ({ status: 200, body: worked(body.sheet) })
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
    wire.answer = () => refused('steps[0].amount.value')
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
    wire.answer = async (_, body) => {
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
    wire.answer = () => Promise.reject(new TypeError('no network'))
    await draft.edit(set(70))
    expect(draft.trouble.value).toContain('does not answer')
    expect(flour()).toBe(70)
  })
  it('aims with what it serves, follows schools, and tells what changed', async () => {
    await draft.aim(undefined, { serves: { use: 'nap', count: 10 } })
    expect(asked.at(-1)).toMatchObject({ path: '/api/work/solve', body: { serves: { use: 'nap' } } })
    wire.answer = (_, body) => ({ status: 200, body: { ...worked(body.sheet), changes: ['fat 9 → 10 %'] } })
    await draft.follow('fat-to-flour', 'more-fat')
    expect(asked.at(-1)).toMatchObject({ path: '/api/work/switch', body: { choice: 'more-fat' } })
    expect(draft.changes.value).toEqual(['fat 9 → 10 %'])
  })
  it('takes the pan its minutes were written for along into another', async () => {
    const twenty = { name: '20', diameter_cm: 20 }
    await draft.edit((sheet) => (sheet.pan = twenty))
    await draft.move({ pan: { name: '28', diameter_cm: 28 } })
    expect(asked.at(-1)).toMatchObject({
      path: '/api/work/solve',
      body: { sheet: { pan: { name: '28' } }, written_in: { pan: twenty, burner: null } },
    })
  })
  it('saves, then meets another window, and saves on top of it', async () => {
    wire.answer = (path, body) =>
      path === '/api/sauces'
        ? { status: 201, body: { id: 7, version: 1, sheet: body.sheet } }
        : { status: 200, body: worked(body.sheet) }
    expect((await draft.save())?.id).toBe(7)
    expect(draft.dirty.value).toBe(false)
    await draft.edit(set(60))
    const conflict = { message: 'taken', version: 2, differences: [], sheet: sauce(99) }
    wire.answer = (path, body) => {
      if (!path.startsWith('/api/sauces')) return { status: 200, body: worked(body.sheet) }
      return body.base_version === 2
        ? { status: 200, body: { id: 7, version: 3, sheet: body.sheet } }
        : { status: 409, body: conflict }
    }
    expect(await draft.save()).toBeNull()
    expect(draft.conflict.value?.version).toBe(2)
    expect((await draft.save(true))?.base).toBe(3)
    expect(draft.conflict.value).toBeNull()
  })
  it('takes two quick undos and redos as two', async () => {
    await draft.edit(set(90))
    await draft.edit(set(100))
    draft.undo()
    draft.undo()
    await vi.waitFor(() => expect(flour()).toBe(80))
    draft.redo()
    await vi.waitFor(() => expect(flour()).toBe(90))
    draft.redo()
    await vi.waitFor(() => expect(flour()).toBe(100))
  })
})
