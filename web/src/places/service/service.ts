/**
 * The service being planned: what is typed, what the core made of it, undo, saving.
 *
 * As in the builder every change goes to the core whole, and what it refuses stays in its field
 * while the last good plan stands.
 */
import { computed, onScopeDispose, ref, shallowRef, toRaw } from 'vue'
import { api, ask, Refused, Taken, type Problem, type Schemas } from '@/api/client'

export type Plan = Schemas['PlanOut']
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Loose = Record<string, any>
type Ask = (document: Loose, pinned: Record<string, number>) => Promise<Plan>

const worked: Ask = (document, pinned) => ask(api.POST('/api/services/work', { body: { document, pinned } }))
const SAME_EDIT_MS = 1500
const UNDO_LIMIT = 100

export function useService() {
  const doc = ref<Loose>({ name: '', lines: [] })
  const plan = shallowRef<Plan | null>(null)
  const problems = ref<Problem[]>([])
  const trouble = ref('')
  /** As the server has it; `text` null until it is worked out, so that nothing counts as changed before. */
  const saved = ref<{ id: number; revision: number; pinned: Record<string, number>; text: string | null } | null>(null)
  const conflict = ref<Schemas['KeptTaken'] | null>(null)
  const past = shallowRef<Loose[]>([])
  const future = shallowRef<Loose[]>([])
  const key = computed(() => `kestrel.service.${saved.value?.id ?? 'new'}`)
  const dirty = computed(
    () =>
      problems.value.length > 0 ||
      (typeof saved.value?.text === 'string' && JSON.stringify(plan.value?.document) !== saved.value.text),
  )

  let gone = false
  onScopeDispose(() => (gone = true))
  let busy: Promise<void> | null = null
  let waiting: { document: Loose; ask: Ask; tag: string; keep: boolean } | null = null
  /** The last good state, or the one a step back or forth is on its way to: two quick steps are two. */
  let present: Loose | null = null
  let lastTag = ''
  let lastAt = 0

  function remember(before: Loose, tag: string): void {
    const now = Date.now()
    const same = tag !== '' && tag === lastTag && now - lastAt < SAME_EDIT_MS
    lastTag = tag
    lastAt = now
    if (!same) past.value = [...past.value.slice(1 - UNDO_LIMIT), before]
    future.value = []
  }
  function send(document: Loose, how: Ask, tag: string, keep: boolean): Promise<void> {
    doc.value = document
    waiting = { document, ask: how, tag, keep }
    busy ??= (async () => {
      while (waiting) {
        const job = waiting
        waiting = null
        try {
          const found = await job.ask(job.document, saved.value?.pinned ?? {})
          if (gone) return
          if (job.keep && present && JSON.stringify(present) !== JSON.stringify(found.document)) remember(present, job.tag)
          plan.value = found
          present = found.document
          problems.value = []
          trouble.value = ''
          if (!waiting) doc.value = structuredClone(found.document) as Loose
        } catch (error) {
          if (gone) return
          if (error instanceof Refused) {
            problems.value = error.problems
            trouble.value = ''
          } else trouble.value = (error as Error).message
        }
        store()
      }
      busy = null
    })()
    return busy
  }
  /** Change the service by hand; `tag` names the field so that typing in it is one undo. */
  function edit(change: (document: Loose) => void, tag = ''): Promise<void> {
    const next = structuredClone(toRaw(doc.value))
    change(next)
    return send(next, worked, tag, true)
  }
  /** A pot or sauce made larger or smaller: the portions follow. */
  function flow(node: string, ml: number): Promise<void> {
    return send(
      structuredClone(toRaw(doc.value)),
      (document, pinned) => ask(api.POST('/api/services/flow', { body: { document, pinned, node, ml } })),
      '',
      true,
    )
  }
  function scale(covers: number): Promise<void> {
    return send(
      structuredClone(toRaw(doc.value)),
      (document, pinned) => ask(api.POST('/api/services/scale', { body: { document, pinned, covers } })),
      '',
      true,
    )
  }
  function step(from: typeof past, to: typeof past): void {
    const next = from.value.at(-1)
    if (!next || !present) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, present]
    present = next
    lastTag = ''
    void send(structuredClone(toRaw(next)), worked, '', false)
  }
  const undo = () => step(past, future)
  const redo = () => step(future, past)

  function problemAt(field: string): Problem | null {
    return problems.value.find((p) => p.field === field || p.field.startsWith(`${field}.`) || p.field.startsWith(`${field}[`)) ?? null
  }
  function store(): void {
    if (saved.value && dirty.value) {
      localStorage.setItem(key.value, JSON.stringify({ revision: saved.value.revision, document: toRaw(doc.value) }))
    } else localStorage.removeItem(key.value)
  }
  function take(found: Schemas['ServiceOut']): void {
    saved.value = { id: found.id, revision: found.revision, pinned: found.pinned, text: null }
  }
  async function open(id: number): Promise<void> {
    const found = await ask(api.GET('/api/services/{service_id}', { params: { path: { service_id: id } } }))
    take(found)
    const kept = localStorage.getItem(key.value)
    await send(found.document as Loose, worked, '', false)
    saved.value!.text = JSON.stringify(plan.value?.document)
    store()
    if (kept) {
      const { revision, document } = JSON.parse(kept) as { revision: number; document: Loose }
      saved.value!.revision = revision
      await send(document, worked, '', true)
    }
  }
  /** Save; a conflict is told in `conflict` and nothing is written. */
  async function save(over = false): Promise<boolean> {
    if (busy) await busy
    if (!saved.value || !plan.value || problems.value.length) return false
    const { id } = saved.value
    const revision = over && conflict.value ? conflict.value.revision : saved.value.revision
    try {
      const found = await ask(
        api.PUT('/api/services/{service_id}', {
          params: { path: { service_id: id } },
          body: { document: plan.value.document as Loose, revision },
        }),
      )
      take(found)
      saved.value.text = JSON.stringify(plan.value.document)
      conflict.value = null
      trouble.value = ''
      store()
      return true
    } catch (error) {
      if (error instanceof Taken) conflict.value = error.body as Schemas['KeptTaken']
      else if (error instanceof Refused) problems.value = error.problems
      else trouble.value = (error as Error).message
      return false
    }
  }
  /** Drop this window's changes for what the other one saved. */
  async function takeTheirs(): Promise<void> {
    localStorage.removeItem(key.value)
    conflict.value = null
    if (saved.value) await open(saved.value.id)
  }
  /** Take the newest version of a sauce that was changed since. */
  async function renew(sauceId: number): Promise<void> {
    if (!saved.value) return
    const found = await ask(
      api.POST('/api/services/{service_id}/renew', {
        params: { path: { service_id: saved.value.id } },
        body: { sauce_id: sauceId, revision: saved.value.revision },
      }),
    )
    const { text } = saved.value
    take(found)
    saved.value.text = text
    await send(structuredClone(toRaw(doc.value)), worked, '', false)
  }
  return {
    doc, plan, problems, trouble, saved, conflict, dirty, past, future,
    edit, flow, scale, undo, redo, problemAt, open, save, takeTheirs, renew,
  }
}
export type ServiceDraft = ReturnType<typeof useService>
