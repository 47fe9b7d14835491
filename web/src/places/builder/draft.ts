/**
 * The sauce being worked on: what is typed, what the core last made of it, undo, and saving.
 *
 * Every change goes to the core whole. What it refuses stays in the field with the reason
 * beside it, while the last good picture stands.
 */
import { computed, onScopeDispose, ref, shallowRef, toRaw } from 'vue'
import { api, ask, Refused, Taken, type Problem, type Schemas, type Sheet, type Worked } from '@/api/client'

/** A sheet as typed: amounts may still be text. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type LooseSheet = Record<string, any>

export interface SolveWith {
  serves?: Record<string, unknown>
  have?: { ingredient: string; amount: unknown }
}
type Ask = (sheet: LooseSheet) => Promise<Worked>
type Job = { sheet: LooseSheet; ask: Ask; tag: string; keep: boolean }
type Saved = { id: number; version: number; sheet: Sheet }

const checked: Ask = (sheet) => ask(api.POST('/api/work/check', { body: { sheet, resalt: false } }))

const UNDO_LIMIT = 200
const SAME_EDIT_MS = 1500

export function useDraft() {
  const sheet = ref<LooseSheet>({})
  const worked = shallowRef<Worked | null>(null)
  const problems = ref<Problem[]>([])
  /** What comes nearest to a target that cannot be had. */
  const nearest = shallowRef<Sheet | null>(null)
  const trouble = ref('')
  const saved = ref<Saved | null>(null)
  const conflict = ref<Schemas['ConflictOut'] | null>(null)
  const restored = ref(false)
  const changes = ref<string[]>([])
  const past = shallowRef<Sheet[]>([])
  const future = shallowRef<Sheet[]>([])
  const storageKey = computed(() => `kestrel.draft.${saved.value?.id ?? 'new'}`)
  const dirty = computed(() => {
    if (problems.value.length) return true
    const good = worked.value?.sheet
    return Boolean(good) && JSON.stringify(good) !== JSON.stringify(saved.value?.sheet)
  })

  let waiting: Job | null = null
  let busy: Promise<void> | null = null
  /** The last good state, or the one a step back or forth is on its way to: two quick steps are two. */
  let present: Sheet | null = null
  let lastTag = ''
  let lastAt = 0
  let gone = false
  onScopeDispose(() => (gone = true))

  function remember(previous: Sheet, tag: string): void {
    const now = Date.now()
    const sameEdit = tag !== '' && tag === lastTag && now - lastAt < SAME_EDIT_MS
    lastTag = tag
    lastAt = now
    if (!sameEdit) past.value = [...past.value.slice(1 - UNDO_LIMIT), previous]
    future.value = []
  }

  async function work(job: Job): Promise<void> {
    try {
      const found = await job.ask(job.sheet)
      if (gone) return
      if (job.keep && present && JSON.stringify(present) !== JSON.stringify(found.sheet)) {
        remember(present, job.tag)
      }
      worked.value = found
      present = found.sheet
      if (found.changes?.length) changes.value = found.changes
      problems.value = []
      nearest.value = null
      trouble.value = ''
      if (!waiting) sheet.value = structuredClone(found.sheet)
    } catch (error) {
      if (gone) return
      if (error instanceof Refused) {
        problems.value = error.problems
        nearest.value = error.nearest
        trouble.value = ''
      } else {
        trouble.value = (error as Error).message
      }
    }
    store()
  }
  /** Sends the newest job; what was overtaken while waiting is never sent. */
  function send(job: Job): Promise<void> {
    sheet.value = job.sheet
    waiting = job
    busy ??= (async () => {
      while (waiting) {
        const next = waiting
        waiting = null
        await work(next)
      }
      busy = null
    })()
    return busy
  }

  /** Change the sheet by hand; `tag` names the field so that typing in it is one undo. */
  function edit(change: (sheet: LooseSheet) => void, tag = ''): Promise<void> {
    const next = structuredClone(toRaw(sheet.value))
    change(next)
    return send({ sheet: next, ask: checked, tag, keep: true })
  }
  /** Take what comes nearest to the target that was refused, its target with it. */
  function takeNearest(): Promise<void> {
    const next = structuredClone(toRaw(nearest.value)) as LooseSheet
    return send({ sheet: next, ask: checked, tag: '', keep: true })
  }
  /** Change the salt target; the core brings the step that salts along. */
  function salt(target: string): Promise<void> {
    const next = structuredClone(toRaw(sheet.value))
    next.target.salt_pct = target.trim() || null
    return send({
      sheet: next,
      ask: (sheet) => ask(api.POST('/api/work/check', { body: { sheet, resalt: true } })),
      tag: 'salt',
      keep: true,
    })
  }
  /** Make it another school's way; `changes` then says what that moved. */
  function follow(school: string, choice: string): Promise<void> {
    const body = { school, choice }
    return send({
      sheet: structuredClone(toRaw(sheet.value)),
      ask: (sheet) => ask(api.POST('/api/work/switch', { body: { ...body, sheet } })),
      tag: '',
      keep: true,
    })
  }
  /** Change the target and have the core re-proportion the sauce to it. */
  function aim(
    change: (sheet: LooseSheet) => void = () => undefined,
    solve: SolveWith = {},
    tag = '',
  ): Promise<void> {
    const next = structuredClone(toRaw(sheet.value))
    change(next)
    return send({
      sheet: next,
      ask: (sheet) => ask(api.POST('/api/work/solve', { body: { sheet, exact: false, ...solve } })),
      tag,
      keep: true,
    })
  }
  /** One state back or forth: from the end of one list to the end of the other. */
  function step(from: typeof past, to: typeof past): void {
    const next = from.value.at(-1)
    if (!next || !present) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, present]
    present = next
    lastTag = ''
    void send({ sheet: structuredClone(toRaw(next)), ask: checked, tag: '', keep: false })
  }
  const undo = () => step(past, future)
  const redo = () => step(future, past)

  /** The first problem at `field` or below it. */
  function problemAt(field: string): Problem | null {
    return (
      problems.value.find(
        (p) => p.field === field || p.field.startsWith(`${field}.`) || p.field.startsWith(`${field}[`),
      ) ?? null
    )
  }

  function store(): void {
    if (dirty.value) {
      const kept = { base: saved.value?.version ?? 0, sheet: toRaw(sheet.value) }
      localStorage.setItem(storageKey.value, JSON.stringify(kept))
    } else {
      localStorage.removeItem(storageKey.value)
    }
  }

  async function begin(first: Sheet, from: Saved | null): Promise<void> {
    saved.value = from
    past.value = []
    future.value = []
    await send({ sheet: structuredClone(toRaw(first)) as LooseSheet, ask: checked, tag: '', keep: false })
    if (from && worked.value) saved.value = { ...from, sheet: worked.value.sheet }
    store()
  }
  /** Open a saved sauce; unsaved changes from before a reload come back. */
  async function open(id: number): Promise<void> {
    const found = await ask(
      api.GET('/api/sauces/{sauce_id}', { params: { path: { sauce_id: id } } }),
    )
    const kept = localStorage.getItem(`kestrel.draft.${id}`)
    await begin(found.sheet, found)
    if (kept) await restore(kept, found.version)
  }
  /** Start a new sauce from a starting point; one that was begun before comes back. */
  async function start(first: Sheet, fresh: boolean): Promise<void> {
    const kept = fresh ? null : localStorage.getItem('kestrel.draft.new')
    await begin(first, null)
    if (kept) await restore(kept, 0)
  }
  async function restore(kept: string, version: number): Promise<void> {
    try {
      const { base, sheet: typed } = JSON.parse(kept) as { base: number; sheet: LooseSheet }
      if (saved.value && base !== version) saved.value = { ...saved.value, version: base }
      await send({ sheet: typed, ask: checked, tag: '', keep: true })
      restored.value = true
    } catch {
      localStorage.removeItem(storageKey.value)
    }
  }
  /** Throw unsaved changes away. */
  async function discard(): Promise<void> {
    localStorage.removeItem(storageKey.value)
    restored.value = false
    if (saved.value) {
      const { id } = saved.value
      await open(id)
    }
  }

  /** Save; on a conflict `conflict` is set and nothing is written. */
  async function save(baseVersion = saved.value?.version): Promise<Saved | null> {
    if (busy) await busy
    if (problems.value.length || !worked.value) return null
    const body = { sheet: worked.value.sheet as LooseSheet }
    const key = storageKey.value
    try {
      const found = saved.value
        ? await ask(
            api.PUT('/api/sauces/{sauce_id}', {
              params: { path: { sauce_id: saved.value.id } },
              body: { ...body, base_version: baseVersion ?? saved.value.version },
            }),
          )
        : await ask(api.POST('/api/sauces', { body }))
      saved.value = { id: found.id, version: found.version, sheet: worked.value.sheet }
      conflict.value = null
      restored.value = false
      trouble.value = ''
      localStorage.removeItem(key)
      return saved.value
    } catch (error) {
      if (error instanceof Taken) conflict.value = error.body as Schemas['ConflictOut']
      else if (error instanceof Refused) problems.value = error.problems
      else trouble.value = (error as Error).message
      return null
    }
  }
  /** Leave what the other window saved as it is, and save this as a sauce of its own. */
  async function saveAsNew(): Promise<Saved | null> {
    const before = saved.value
    localStorage.removeItem(storageKey.value)
    saved.value = null
    const found = await save()
    if (!found) saved.value = before
    return found
  }
  /** Drop this window's changes and take what the other one saved. */
  async function takeTheirs(): Promise<void> {
    const theirs = conflict.value
    if (!theirs || !saved.value) return
    conflict.value = null
    localStorage.removeItem(storageKey.value)
    await begin(theirs.sheet, { ...saved.value, version: theirs.version, sheet: theirs.sheet })
  }

  return {
    sheet, worked, problems, nearest, trouble, saved, conflict, restored, changes, dirty, past, future,
    edit, aim, takeNearest, salt, follow, undo, redo, problemAt, open, start, discard, save, saveAsNew, takeTheirs,
  }
}
export type Draft = ReturnType<typeof useDraft>
