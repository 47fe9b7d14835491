/** The service being planned: a document the core plans, with its sauces at pinned versions. */
import { computed, ref, toRaw } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { useDocument, type Loose, type Stored } from '@/shell/document'
import { firstAt } from '@/shell/form'

export type { Loose }
export type Plan = Schemas['Plan']
export type Production = Schemas['Production']

/** What a line is called where pots, sauces and dishes are chosen from. */
/** An id no line of any service had: what was begun for a line is never another's. */
export const newLineId = () => 1000 + (crypto.getRandomValues(new Uint32Array(1))[0]! % 1_000_000_000)

export const lineKey = (index: number) => `line-${index}`

const DIETS = ['vegetarian', 'vegan']
/** "vegan", "without milk, celery": how a guest is told apart in few words. */
export function goesWithout(words: string[]): string {
  const rest = words.filter((word) => !DIETS.includes(word))
  return [...words.filter((word) => DIETS.includes(word)), ...(rest.length ? [`without ${rest.join(', ')}`] : [])].join(
    ', ',
  )
}

export function useService() {
  const pinned = ref<Record<string, number>>({})
  const at = (id: number) => ({ params: { path: { service_id: id } } })
  function take(found: Schemas['ServiceOut']): Stored {
    pinned.value = found.pinned
    return { id: found.id, base: found.revision, document: found.document }
  }
  const document = useDocument<Schemas['ServiceWorked'], Schemas['KeptTaken']>({
    name: 'service',
    work: (typed) => ask(api.POST('/api/services/work', { body: { document: typed, pinned: pinned.value } })),
    documentOf: (found) => found.plan.service,
    unread: (found) => found.unread ?? [],
    load: async (id) => take(await ask(api.GET('/api/services/{service_id}', at(id)))),
    write: async (typed, id, revision) =>
      take(
        id === null
          ? await ask(api.POST('/api/services', { body: { document: typed, revision } }))
          : await ask(api.PUT('/api/services/{service_id}', { ...at(id), body: { document: typed, revision } })),
      ),
    theirs: (body) => ({ base: body.revision, document: body.document }),
  })
  const { typed, found, stored, edit, send, moved } = document
  /** What was refused at a field; else what is amiss with that entry while the rest is planned. */
  const problemAt = (field: string) => document.problemAt(field) ?? firstAt(found.value?.plan.amiss ?? [], field)

  /** A pot or sauce made larger or smaller: the portions follow. */
  const flow = (node: string, ml: number) =>
    edit(
      () => undefined,
      '',
      (doc) => ask(api.POST('/api/services/flow', { body: { document: doc, pinned: pinned.value, node, ml } })),
    )
  /** The whole service for so many covers. */
  const scale = (covers: number) =>
    edit(
      () => undefined,
      '',
      (doc) => ask(api.POST('/api/services/scale', { body: { document: doc, pinned: pinned.value, covers } })),
    )
  /** Take the newest version of a sauce that was changed since. */
  async function renew(sauceId: number): Promise<void> {
    if (!stored.value) return
    const body = { sauce_id: sauceId, revision: stored.value.base }
    const made = await ask(api.POST('/api/services/{service_id}/renew', { ...at(stored.value.id), body }))
    moved(take(made).base)
    await send(structuredClone(toRaw(typed.value)), { keep: false })
  }
  const plan = computed(() => found.value?.plan ?? null)
  const production = computed(() => found.value?.production ?? null)
  const changed = computed(() => found.value?.changed ?? [])
  return {
    ...document,
    problemAt,
    refusedAt: document.problemAt,
    doc: typed,
    plan,
    production,
    changed,
    pinned,
    flow,
    scale,
    renew,
  }
}
export type ServiceDraft = ReturnType<typeof useService>
