import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused, type Problem } from '@/api/client'
import { fresh, kept, type Loose } from '@/testing'
import { begun, leaveFor, useDocument } from './document'

let made: Loose[] = []
const kind = {
  name: 'note',
  work: async (document: Loose) => (made.push(document), document),
  documentOf: (found: Loose) => found,
  load: async (id: number) => ({ id, base: 3, document: { words: 'stored' } }),
  write: async (document: Loose, id: number | null, base: number) => ({ id: id ?? 9, base: base + 1, document }),
  theirs: (body: { base: number; document: object }) => body,
}
const open = () => effectScope().run(() => useDocument(kind))!
beforeEach(() => {
  fresh()
  made = []
})
afterEach(() => vi.unstubAllGlobals())

describe('a document being edited', () => {
  it('begun in another place is taken up where it is edited', async () => {
    expect(begun('note')).toBe(false)
    leaveFor('note', { words: 'read' })
    expect(begun('note')).toBe(true)
    const note = open()
    await note.start({ words: '' }, false)
    expect(note.typed.value).toEqual({ words: 'read' })
    expect(note.restored.value).toBe(true)
    expect((await note.save())?.id).toBe(9)
    expect(begun('note')).toBe(false)
  })
  it('starts afresh where that is asked for', async () => {
    leaveFor('note', { words: 'read' })
    const note = open()
    await note.start({ words: '' }, true)
    expect(note.typed.value).toEqual({ words: '' })
  })
  it.each([
    ['this version', { base: 2, document: { words: 'kept' } }],
    ['one that called it a sheet', { base: 2, sheet: { words: 'kept' } }],
    ['one that counted revisions', { revision: 2, document: { words: 'kept' } }],
  ])('brings back what %s kept, at the version it was made from', async (_, copy) => {
    kept.set('kestrel.note.4', JSON.stringify(copy))
    const note = open()
    await note.open(4)
    expect(note.typed.value).toEqual({ words: 'kept' })
    expect(note.stored.value?.base).toBe(2)
    expect(note.dirty.value).toBe(true)
  })
  it.each([true, false])(
    'deleted in another window, it is saved as a new one where that is wanted: %s',
    async (yes) => {
      const gone = { field: 'sauce', code: 'was-deleted', message: 'was deleted', remedy: 'Save it as new' }
      const write = vi.fn(async (document: Loose, id: number | null, base: number) => {
        if (id !== null) throw new Refused([gone as Problem])
        return { id: 9, base: base + 1, document }
      })
      vi.stubGlobal('confirm', () => yes)
      const note = effectScope().run(() => useDocument({ ...kind, write }))!
      await note.open(4)
      await note.edit((one) => (one.words = 'mine'))
      const saved = await note.save()
      expect(saved?.id).toBe(yes ? 9 : undefined)
      expect(note.typed.value).toEqual({ words: 'mine' })
      expect(note.problems.value).toEqual([]) // nothing in it is wrong: it can be saved again
      expect(note.trouble.value).toBe(yes ? '' : 'was deleted. Save it as new')
      expect(kept.has('kestrel.note.4')).toBe(!yes)
    },
  )
  it('drops what is no copy of ours and opens the stored one', async () => {
    kept.set('kestrel.note.4', '{"something": 1}')
    const note = open()
    await note.open(4)
    expect(note.typed.value).toEqual({ words: 'stored' })
    expect(kept.size).toBe(0)
  })
  it('asks for the newest only, of what is typed while it is busy', async () => {
    const note = open()
    await note.open(4)
    made = []
    await Promise.all(['a', 'ab', 'abc'].map((words) => note.edit((doc) => (doc.words = words), 'words')))
    expect(made.map((doc) => doc.words)).toEqual(['a', 'abc'])
    note.undo()
    await vi.waitFor(() => expect(note.typed.value).toEqual({ words: 'stored' }))
  })
  /** A core that answers when it is let. */
  function slow() {
    const answers: (() => void)[] = []
    const asked: Loose[] = []
    const work = (document: Loose) =>
      new Promise<Loose>((done) => {
        asked.push(document)
        answers.push(() => done(document))
      })
    const scale = (document: Loose) =>
      new Promise<Loose>((done) => {
        asked.push(document)
        answers.push(() => done({ ...document, portions: (document.portions as number[]).map((n) => 2 * n) }))
      })
    const answer = async () => {
      answers.shift()!()
      await new Promise((done) => setTimeout(done))
    }
    return { asked, work, scale, answer }
  }
  it('loses nothing on a slow line: what asks for more is never overtaken, and what is typed meanwhile stays', async () => {
    const { asked, work, scale, answer } = slow()
    const note = effectScope().run(() => useDocument({ ...kind, work }))!
    void note.send({ portions: [10, 20] }, { keep: false })
    await answer()
    void note.edit((doc) => (doc.portions[0] = 12))
    void note.edit(() => undefined, '', scale) // pressed while the first is on its way
    void note.edit((doc) => (doc.portions[1] = 50), 'one') // and typed while that waits
    void note.edit((doc) => (doc.portions[1] = 55), 'one')
    expect(note.typed.value.portions).toEqual([12, 55]) // at once, as it was typed
    await answer()
    expect(note.typed.value.portions).toEqual([12, 55])
    await answer()
    expect(note.typed.value.portions).toEqual([24, 55])
    await answer()
    expect(note.typed.value.portions).toEqual([24, 55])
    expect(asked.slice(1).map((doc) => doc.portions)).toEqual([
      [12, 20],
      [12, 20],
      [24, 55],
    ])
  })
  it('keeps what was typed before the answer came, over a reload', async () => {
    const { work, answer } = slow()
    const note = effectScope().run(() => useDocument({ ...kind, work }))!
    const opening = note.open(4)
    await new Promise((done) => setTimeout(done))
    await answer()
    await opening
    void note.edit((doc) => (doc.words = 'typed'))
    const again = open()
    await again.open(4)
    expect(again.typed.value).toEqual({ words: 'typed' })
  })
  it('tells a change that no longer fits what came back, and makes the others', async () => {
    const { work, answer } = slow()
    const note = effectScope().run(() => useDocument({ ...kind, work }))!
    void note.send({ steps: [{ g: 1 }, { g: 2 }] }, { keep: false })
    await answer()
    const shorter = async (document: Loose) => ({ ...(await work(document)), steps: [{ g: 1 }] })
    void note.edit(() => undefined, '', shorter)
    void note.edit((doc) => (doc.steps[1].g = 5))
    void note.edit((doc) => (doc.steps[0].g = 7))
    await answer()
    expect(note.typed.value.steps).toEqual([{ g: 7 }])
    expect(note.trouble.value).toContain('changed while you typed')
  })
  it('undoes an edit that is still being worked out once it is there, and redoes it', async () => {
    const note = open()
    await note.open(4)
    void note.edit((doc) => (doc.words = 'slow'))
    note.undo() // on a slow line: before the answer
    await vi.waitFor(() => expect(note.typed.value).toEqual({ words: 'stored' }))
    expect(note.future.value).toHaveLength(1)
    note.redo()
    await vi.waitFor(() => expect(note.typed.value).toEqual({ words: 'slow' }))
  })
})
