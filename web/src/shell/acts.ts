/**
 * What is done at the pots, in order: kept on this device until the server has it, sent once the network
 * is there, never twice. A pot is shown with what is still on its way.
 */
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, ask, Refused, Unanswered, type Schemas } from '@/api/client'
import { newKey } from '@/api/once'
import { formOf } from '@/parts/steps'
import { forget, keep as keepKept, recall, recallAll } from './keep'
import { useSession } from './session'

export type Batch = Schemas['BatchOut']
export type Act = Schemas['ActsIn']['acts'][number]
/** What is usual need not be said. */
type Usual = 'sure' | 'unit'
type Body<A> = A extends Act ? Omit<A, 'key' | 'at' | Usual> & Partial<Pick<A, Extract<keyof A, Usual>>> : never
/** An act without its key and moment, which it is given here. */
export type Doing = Body<Act>
/** `session`: whose sign-in it was done under, so that it is never sent as somebody else's; `by` what they are called. */
type Waiting = { batch: number; act: Act; session?: number | null; by?: string | null }

/** An act that waits is kept by itself: two windows of a device never write over each other's. */
const ACT = 'act.'
const BATCH = 'batch.'
const AHEAD = 'ahead.'
/** Pots kept for a reload without the server. */
const MOST_KEPT = 12
/** Where acts waited before December 2026. */
const BEFORE = 'kestrel.acts'

/** Those of before, taken over once. */
function ofBefore(): Waiting[] {
  try {
    const found = JSON.parse(localStorage.getItem(BEFORE) ?? '[]') as Waiting[]
    localStorage.removeItem(BEFORE)
    return found
  } catch {
    return []
  }
}
/** Which of so many acts are refused, by their numbers: of one alone, that one; of several, those that are named. */
function refusedOf(error: Refused, many: number): number[] {
  if (many === 1) return [0]
  const named = error.problems.map((p) => /^acts(?:\[(\d+)\]|\.(\d+)\b)/.exec(p.field))
  return named.flatMap((found) => (found ? [Number(found[1] ?? found[2])] : []))
}

/** What was asked back, said again as it is meant. */
function meant(act: Act): Doing {
  return { ...act, sure: true } as Doing // its key and moment are given anew
}

/** What is told of a pot, and can be taken back, before the server has it. */
const TOLD = new Set<Act['kind']>(['saw', 'put', 'corrected', 'turned', 'noted', 'mended', 'skipped'])

/** Those that change what a step is told with. */
const CARDS = new Set<string>(['put', 'poured', 'skipped'])

/** The pot as it is once `act` is taken: what can be told without the server. */
export function after(batch: Batch, act: Act): Batch {
  if (!TOLD.has(act.kind)) return moved(batch, act)
  const { key, at, kind, ...told } = act
  const data = { ...told, done_by: undefined }
  const step = 'step' in data ? data.step : batch.step
  return { ...moved(batch, act), acts: [...batch.acts, { key, at, kind, step, data, by: '' }] }
}
function withCard(batch: Batch, step: number, change: (card: Schemas['Card']) => Schemas['Card']): Batch {
  return { ...batch, cards: batch.cards.map((card, n) => (n === step ? change(card) : card)) }
}
function moved(batch: Batch, act: Act): Batch {
  if (act.kind === 'go' && batch.step === act.from_step)
    return {
      ...batch,
      step: act.to_step,
      timers: batch.timers.filter((timer) => timer.name !== 'step'),
      began: { ...batch.began, [String(act.to_step)]: act.at },
    }
  if (act.kind === 'timer-on') {
    const name = act.name ?? 'step'
    const timer = { name, started_at: act.at, seconds: act.seconds }
    return { ...batch, timers: [...batch.timers.filter((one) => one.name !== name), timer] }
  }
  if (act.kind === 'timer-off')
    return { ...batch, timers: batch.timers.filter((timer) => timer.name !== (act.name ?? 'step')) }
  if (act.kind === 'added') {
    // What is in it by its name alone: what follows from it, the server tells.
    const step = batch.cards.length
    const title = formOf(String(act.put.op)).name
    const card = {
      title,
      do: '',
      cue: '',
      weighed: [],
      timer_s: null,
      scale_g: null,
      lines: [],
      remarks: [],
      left_out: false,
    }
    return {
      ...batch,
      step,
      steps: step + 1,
      cards: [...batch.cards, { ...card, hands: 'now-and-then' as const }],
      timers: batch.timers.filter((timer) => timer.name !== 'step'),
      began: { ...batch.began, [String(step)]: act.at },
    }
  }
  if (act.kind === 'skipped') return withCard(batch, act.step, (card) => ({ ...card, left_out: true, weighed: [] }))
  if (act.kind === 'put' && act.grams !== undefined && act.grams !== null) {
    const grams = act.grams
    const amount = { value: grams, unit: 'g' as const }
    return withCard(batch, act.step, (card) => ({
      ...card,
      weighed: card.weighed.map((w) => (w.field === act.field ? { ...w, amount, grams, spoons: null } : w)),
    }))
  }
  if (act.kind === 'undone') {
    const of = batch.acts.find((one) => one.key === act.of)
    const there = { ...batch, acts: batch.acts.filter((one) => one !== of) }
    const planned = batch.plan.cards[of?.step ?? -1]
    return of && planned && CARDS.has(of.kind) ? withCard(there, of.step, () => planned) : there
  }
  if (act.kind === 'stands') return { ...batch, ring: act.ring ?? '', cook: act.cook ?? '', pan: act.pan ?? batch.pan }
  if (act.kind === 'left') return { ...batch, status: 'left' }
  if (act.kind === 'through') return { ...batch, status: 'done' }
  if (act.kind === 'back') return { ...batch, status: 'on' }
  return batch
}

export const useActs = defineStore('acts', () => {
  const session = useSession()
  const waiting = ref<Waiting[]>([])
  const batches = ref(new Map<number, Batch>())
  const offline = ref(false)
  /** It is there, and does not know who sends. */
  const signedOut = ref(false)
  /** What an act was not taken for, by pot: told once on the screen. `again`: it was asked whether it is meant, and so
   * it is said that it is. */
  const told = ref<{ batch: number; why: string; again?: Doing }[]>([])

  function keep(batch: Batch): void {
    const before = batches.value.get(batch.id)
    if (before && before.revision > batch.revision) return // an answer that was overtaken
    batches.value.set(batch.id, batch)
    void keepHere(batch)
  }
  async function keepHere(batch: Batch): Promise<void> {
    await keepKept(BATCH + batch.id, { batch, at: Date.now() })
    const all = await recallAll<{ at: number }>(BATCH)
    for (const [key] of all.sort(([, a], [, b]) => b.at - a.at).slice(MOST_KEPT)) {
      await forget(key)
      await forget(key.replace(BATCH, AHEAD))
    }
  }
  /** The pot, with what is on its way; undefined until it was loaded once. */
  function shown(id: number): Batch | undefined {
    const batch = batches.value.get(id)
    const mine = waiting.value.filter((one) => one.batch === id).map((one) => one.act)
    // What is taken back before it went out never was.
    const gone = new Set(mine.flatMap((act) => (act.kind === 'undone' ? [act.of] : [])))
    return batch && mine.filter((act) => !gone.has(act.key)).reduce(after, batch)
  }

  async function load(id: number): Promise<void> {
    try {
      keep(await ask(api.GET('/api/stove/{batch_id}', { params: { path: { batch_id: id } } })))
      offline.value = false
    } catch (error) {
      if (!(error instanceof Unanswered) || error.status !== 0) throw error
      offline.value = true
      await ready
      if (batches.value.has(id)) return
      const kept = await recall<{ batch: Batch }>(BATCH + id)
      if (!kept) throw error
      if (!batches.value.has(id)) batches.value.set(id, kept.batch)
    }
  }

  /** Done now: shown at once, sent when it can be. Its `key` is what it is taken back by. */
  function does(batch: number, doing: Doing): { key: string; sent: Promise<void> } {
    const { session_id, id, called } = session.who ?? { session_id: null, id: null, called: null }
    const act = { ...doing, key: newKey(), at: new Date().toISOString(), done_by: id } as Act
    const one = { batch, act, session: session_id, by: called }
    waiting.value = [...waiting.value, one]
    // Asked first, it is kept first: what is forgotten once the server has it was there.
    void keepKept(keyOf(one), one).then(tellOthers)
    return { key: act.key, sent: send() }
  }

  const keyOf = (one: Waiting) => `${ACT}${one.act.at}.${one.act.key}`
  /** Other windows of this device keep in the same place: what they did waits here too. */
  const others_ = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('kestrel.acts')
  const tellOthers = () => others_?.postMessage('')
  async function restore(): Promise<void> {
    const kept = (await recallAll<Waiting>(ACT)).sort(([a], [b]) => (a < b ? -1 : 1)).map(([, one]) => one)
    const here = new Set(waiting.value.map((one) => one.act.key))
    const fresh = kept.filter((one) => !here.has(one.act.key) && !dropped.has(one.act.key))
    if (fresh.length) waiting.value = [...fresh, ...waiting.value]
  }
  /** What is over in this window, and may be read once more before it is forgotten. */
  const dropped = new Set<string>()
  const ready = (async () => {
    for (const one of ofBefore()) await keepKept(keyOf(one), one)
    await restore()
  })()
  if (others_) others_.onmessage = () => void restore()

  let sending: Promise<void> | null = null
  function send(): Promise<void> {
    sending ??= sendAll().finally(() => (sending = null))
    return sending
  }
  /** What was done under the sign-in that is here now; the rest waits for who did it to sign in again. */
  const ours = (one: Waiting) => one.session === undefined || one.session === (session.who?.session_id ?? null)
  async function sendAll(): Promise<void> {
    await ready
    for (let sendable = waiting.value.filter(ours); sendable.length; sendable = waiting.value.filter(ours)) {
      const id = sendable[0]!.batch
      const mine = sendable.filter((one) => one.batch === id).slice(0, 100)
      if (!(await sendOf(id, mine))) return
    }
  }
  /** Who has acts on this device that wait for their own sign-in. */
  const others = computed(() => [
    ...new Set(waiting.value.filter((one) => !ours(one)).map((one) => one.by ?? 'somebody')),
  ])
  function drop(gone: Waiting[]): void {
    const keys = new Set(gone.map((one) => one.act.key))
    for (const key of keys) dropped.add(key)
    waiting.value = waiting.value.filter((one) => !keys.has(one.act.key))
    for (const one of gone) void forget(keyOf(one))
  }
  async function sendOf(id: number, mine: Waiting[]): Promise<boolean> {
    const body = { acts: mine.map((one) => one.act), sent_at: new Date().toISOString() }
    try {
      const answer = await ask(api.POST('/api/stove/{batch_id}/acts', { params: { path: { batch_id: id } }, body }))
      offline.value = signedOut.value = false
      keep(answer.batch)
      drop(mine)
      for (const one of answer.acts) if (!one.taken) told.value.push({ batch: id, why: one.why })
      return true
    } catch (error) {
      if (error instanceof Refused) {
        const bad = refusedOf(error, mine.length)
        if (!bad.length) return sendEach(id, mine)
        // What makes no sense is told and let go; what is behind it is not held up.
        drop(mine.filter((_, n) => bad.includes(n)))
        const asked = error.problems.some((p) => p.code?.endsWith('-is-meant')) ? mine[bad[0]!]!.act : undefined
        told.value.push({ batch: id, why: error.message, again: asked && meant(asked) })
        return true
      }
      if (error instanceof Unanswered && error.status === 404) {
        drop(mine)
        told.value.push({ batch: id, why: 'This pot is not there any more.' })
        return true
      }
      signedOut.value = error instanceof Unanswered && error.status === 401
      offline.value = true
      return false // kept: it is tried again
    }
  }
  /** Where it is not said which of several is refused, each is sent alone: none goes for another's fault. */
  async function sendEach(id: number, mine: Waiting[]): Promise<boolean> {
    for (const one of mine) if (!(await sendOf(id, [one]))) return false
    return true
  }
  useEventListener(window, 'online', () => void send())
  useIntervalFn(() => {
    if (waiting.value.some(ours)) void send()
  }, 3000)

  // -- what is ahead

  const aheads = ref(new Map<number, Schemas['AheadOut']>())
  /** What will be believed of a pot, for when the server cannot say. */
  async function lookAhead(id: number): Promise<void> {
    try {
      const told = await ask(api.GET('/api/stove/{batch_id}/ahead', { params: { path: { batch_id: id } } }))
      aheads.value.set(id, told)
      await keepKept(AHEAD + id, told)
    } catch {
      const kept = aheads.value.has(id) ? undefined : await recall<Schemas['AheadOut']>(AHEAD + id)
      if (kept) aheads.value.set(id, kept)
    }
  }

  return {
    aheads,
    isWaiting: (key: string) => waiting.value.some((one) => one.act.key === key),
    lookAhead,
    ready,
    shown,
    keep,
    load,
    does,
    send,
    offline,
    signedOut,
    told,
    others,
    waiting: computed(() => waiting.value.filter(ours).length),
  }
})
