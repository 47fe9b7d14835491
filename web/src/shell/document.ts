/**
 * One engine for a document being edited: a sauce, a service, a dish.
 *
 * Every change goes to the core whole. What it refuses stays in its field with the reason beside
 * it, while the last good picture stands. Changes made while the core is busy are made again of what it
 * answers: plain ones go together, and none that asks for more than working out is overtaken.
 * Undo and redo, a copy of unsaved changes in this browser, saving, and two windows at once.
 */
import { computed, onScopeDispose, ref, shallowRef, toRaw } from 'vue'
import { Refused, Taken, type Problem, type Sheet } from '@/api/client'
import { firstAt } from './form'

/** A document as typed: numbers and amounts may still be text. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Loose = Record<string, any>

/** As the server has it; `base` is the version or revision it was read at. */
export interface Stored {
  id: number
  base: number
  document: object
}

/** What is particular to a kind of document. `Found` is what the core makes of one, `Theirs` the body of
 * a 409. */
export interface DocumentKind<Found, Theirs> {
  /** Unsaved changes are kept in this browser under this name. */
  name: string
  /** Has the core work it out. */
  work: (document: Loose) => Promise<Found>
  /** What is wrong with entries that were left out of what was found: it is no document to keep. */
  unread?: (found: Found) => Problem[]
  /** The document, as the core read it, in what it found. */
  documentOf: (found: Found) => object
  /** Reads the stored one. */
  load: (id: number) => Promise<Stored>
  /** Writes it: a new one where `id` is null, else over the one read at `base`. */
  write: (document: Loose, id: number | null, base: number) => Promise<Stored>
  /** What somebody else saved meanwhile, from the body of a 409. */
  theirs: (body: Theirs) => { base: number; document: object }
}

export interface Change<Found> {
  /** How the core is asked, where it is not simply worked out. */
  ask?: (document: Loose) => Promise<Found>
  /** Names the field, so that typing in it is one undo. */
  tag?: string
  /** Whether it can be undone. */
  keep?: boolean
}

const UNDO_LIMIT = 200
const SAME_EDIT_MS = 1500
/** A copy that shares nothing: what was put in may be reactive, and is plain in it. */
const copied = (document: object) => JSON.parse(JSON.stringify(document)) as Loose
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

const keyOf = (name: string, id?: number) => `kestrel.${name}.${id ?? 'new'}`

/** What was kept in this browser, by this version or one before it. Throws where it cannot be read. */
function copyOf(text: string): { base: number; document: Loose } {
  const kept = JSON.parse(text) as Loose
  const document = kept.document ?? kept.sheet
  if (!document) throw new Error('not a copy of ours')
  return { base: kept.base ?? kept.revision ?? 0, document }
}
/** Leave a new document for the place where it is edited, as after a reload. */
export function leaveFor(name: string, document: object): void {
  localStorage.setItem(keyOf(name), JSON.stringify({ base: 0, document }))
}

/** What was being saved is off the list: deleted in another window. */
function wasDeleted(error: unknown): error is Refused {
  return error instanceof Refused && error.problems.some((problem) => problem.code === 'was-deleted')
}

/** Whether a new document was begun here and not saved. */
export const begun = (name: string) => localStorage.getItem(keyOf(name)) !== null

export function useDocument<Found, Theirs>(kind: DocumentKind<Found, Theirs>) {
  const typed = ref<Loose>({})
  const found = shallowRef<Found | null>(null)
  const problems = ref<Problem[]>([])
  /** What comes nearest to a target that cannot be had. */
  const nearest = shallowRef<Sheet | null>(null)
  const trouble = ref('')
  const stored = shallowRef<Stored | null>(null)
  /** Told by the server: somebody else saved meanwhile. */
  const conflict = shallowRef<Theirs | null>(null)
  /** Unsaved changes from before a reload were brought back. */
  const restored = ref(false)
  const past = shallowRef<object[]>([])
  const future = shallowRef<object[]>([])
  const good = computed(() => (found.value === null ? null : kind.documentOf(found.value)))
  const dirty = computed(
    () => problems.value.length > 0 || (good.value !== null && !same(good.value, stored.value?.document)),
  )
  const key = (id = stored.value?.id) => keyOf(kind.name, id)

  type Job = { document: Loose } & Required<Change<Found>>
  /** A change that was made and not sent yet: what it makes of a document. */
  type Waiting = Change<Found> & { make: (document: Loose) => Loose }
  let waiting: Waiting[] = []
  /** What waiting changes are made of: what the core answered last, or was sent where it answered none. */
  let settled: Loose = {}
  let busy: Promise<void> | null = null
  /** The last good state, or the one a step back or forth is on its way to: two quick steps are two. */
  let present: object | null = null
  /** Whether an edit is on its way that no list remembers yet. */
  let editing = false
  let lastTag = ''
  let lastAt = 0
  let gone = false
  onScopeDispose(() => (gone = true))

  function remember(before: object, tag: string): void {
    const now = Date.now()
    const sameEdit = tag !== '' && tag === lastTag && now - lastAt < SAME_EDIT_MS
    lastTag = tag
    lastAt = now
    if (!sameEdit) past.value = [...past.value.slice(1 - UNDO_LIMIT), before]
    future.value = []
  }
  function refuse(error: unknown): void {
    if (error instanceof Refused) {
      problems.value = error.problems
      nearest.value = error.nearest
      trouble.value = ''
    } else {
      trouble.value = (error as Error).message
    }
  }
  async function work(job: Job): Promise<void> {
    editing = job.keep
    try {
      const made = await job.ask(job.document)
      if (gone) return
      const unread = kind.unread?.(made) ?? []
      if (unread.length) {
        // What can be worked out is shown; what was typed stays in its fields until it is mended.
        found.value = made
        problems.value = unread
        nearest.value = null
        trouble.value = ''
        return keepHere()
      }
      const document = kind.documentOf(made)
      if (job.keep && present && !same(present, document)) remember(present, job.tag)
      found.value = made
      present = document
      problems.value = []
      nearest.value = null
      trouble.value = ''
      settled = copied(document)
    } catch (error) {
      if (gone) return
      refuse(error)
    } finally {
      typed.value = waiting.reduce(applied, copied(settled))
      editing = waiting.some((change) => change.keep !== false)
    }
    keepHere()
  }
  /** A change that no longer fits what the core made meanwhile (its step is gone) is told, and not made. */
  function applied(document: Loose, change: Waiting): Loose {
    try {
      return change.make(copied(document))
    } catch {
      trouble.value = 'It changed while you typed: look whether it is as you meant it.'
      return document
    }
  }
  /** The changes that go next: plain ones together, up to the first that asks for more. */
  function next(): Job {
    const asking = waiting.findIndex((change) => change.ask)
    const many = asking < 0 ? waiting.length : asking + 1
    const going = waiting.slice(0, many)
    waiting = waiting.slice(many)
    settled = going.reduce(applied, settled)
    const { ask = kind.work, tag = '' } = going.at(-1)!
    return { document: copied(settled), ask, tag, keep: going.some((change) => change.keep !== false) }
  }
  function change(it: Waiting): Promise<void> {
    typed.value = applied(copied(typed.value), it)
    waiting = [...waiting, it]
    if (it.keep !== false) {
      editing = true
      copyHere()
    }
    busy ??= (async () => {
      while (waiting.length) await work(next())
      busy = null
    })()
    return busy
  }
  /** Puts a whole document in the place of what there is. */
  const send = (document: Loose, asked: Change<Found> = {}) => change({ ...asked, make: () => document })
  /** Change it by hand; `write` is made again of what the core answers meanwhile. */
  const edit = (write: (document: Loose) => void, tag = '', ask?: Change<Found>['ask']) =>
    change({ ask, tag, make: (document) => (write(document), document) })
  /** One state back or forth: from the end of one list to the end of the other. */
  function step(from: typeof past, to: typeof past): void {
    // An edit that is still being worked out is undone too, once it is there to be undone.
    if (editing && busy) return void busy.then(() => step(from, to))
    const next = from.value.at(-1)
    if (!next || !present) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, present]
    present = next
    lastTag = ''
    void send(copied(next), { keep: false })
  }
  const undo = () => step(past, future)
  const redo = () => step(future, past)

  const problemAt = (field: string) => firstAt(problems.value, field)

  function copyHere(): void {
    const copy = { base: stored.value?.base ?? 0, document: toRaw(typed.value) }
    localStorage.setItem(key(), JSON.stringify(copy))
  }
  function keepHere(): void {
    if (dirty.value || waiting.length) copyHere()
    else {
      localStorage.removeItem(key())
    }
  }
  async function begin(first: object, from: Stored | null): Promise<void> {
    stored.value = from
    past.value = []
    future.value = []
    present = null
    await send(copied(first), { keep: false })
    // What counts as unchanged is what the core made of the stored one.
    if (from && good.value) stored.value = { ...from, document: good.value }
    keepHere()
  }
  async function restore(copy: string): Promise<void> {
    try {
      const { base, document } = copyOf(copy)
      if (stored.value) stored.value = { ...stored.value, base }
      await send(document)
      restored.value = true
    } catch {
      localStorage.removeItem(key())
    }
  }
  /** Open the stored one; unsaved changes from before a reload come back. */
  async function open(id: number): Promise<void> {
    const read = await kind.load(id)
    const copy = localStorage.getItem(key(id))
    await begin(read.document, read)
    if (copy) await restore(copy)
  }
  /** Start a new one; one that was begun before comes back, unless it is to be `fresh`. */
  async function start(first: object, fresh: boolean): Promise<void> {
    const copy = fresh ? null : localStorage.getItem(keyOf(kind.name))
    await begin(first, null)
    if (copy) await restore(copy)
  }
  /** Throw unsaved changes away. */
  async function discard(): Promise<void> {
    localStorage.removeItem(key())
    restored.value = false
    if (stored.value) await open(stored.value.id)
  }

  /** Save; `over` puts this in the place of what another window saved. Null where nothing was
   * written: `conflict`, `problems` or `trouble` says why. */
  async function save(over = false): Promise<Stored | null> {
    if (busy) await busy
    if (problems.value.length || !good.value) return null
    const document = good.value
    const here = key()
    const base = over && conflict.value ? kind.theirs(conflict.value).base : (stored.value?.base ?? 0)
    try {
      const made = await kind.write(document as Loose, stored.value?.id ?? null, base)
      stored.value = { ...made, document }
      conflict.value = null
      restored.value = false
      trouble.value = ''
      localStorage.removeItem(here)
      return stored.value
    } catch (error) {
      if (error instanceof Taken) conflict.value = error.body as Theirs
      else if (wasDeleted(error)) {
        // Nothing in it is wrong: kept here as it is, or saved as one of its own.
        trouble.value = error.message
        if (globalThis.confirm(`It ${error.problems[0]!.message}. Save this as a new one?`)) return saveAsNew()
      } else refuse(error)
      return null
    }
  }
  /** Leave what the other window saved as it is, and save this as one of its own. */
  async function saveAsNew(): Promise<Stored | null> {
    const before = stored.value
    localStorage.removeItem(key())
    stored.value = null
    const made = await save()
    if (!made) stored.value = before
    return made
  }
  /** Drop this window's changes and take what the other one saved. */
  async function takeTheirs(): Promise<void> {
    if (!conflict.value || !stored.value) return
    const theirs = kind.theirs(conflict.value)
    conflict.value = null
    localStorage.removeItem(key())
    await begin(theirs.document, { id: stored.value.id, ...theirs })
  }
  /** The stored one was changed on the server beside this editing. */
  const moved = (base: number) => (stored.value = { ...stored.value!, base })

  return {
    typed,
    found,
    problems,
    nearest,
    trouble,
    stored,
    conflict,
    restored,
    dirty,
    past,
    future,
    send,
    edit,
    undo,
    redo,
    problemAt,
    open,
    start,
    discard,
    save,
    saveAsNew,
    takeTheirs,
    moved,
  }
}
