/** A run-up open on the screen: what was planned, how far the planning is, and what a cook changes. */
import { useIntervalFn, useThrottleFn } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { api, ask, Refused, Taken, type Schemas } from '@/api/client'
import { number } from '@/parts/format'
import { useListen } from '@/shell/listen'

export type Whole = Schemas['RunUpOut']
export type Block = Schemas['Block']
export type Day = Schemas['TimedDay']
export type Said = Whole['document']

const ASKED_EVERY_MS = 400
/** How often the stove is looked at: a step done early or late moves the plan. */
const LOOKED_EVERY_MS = 15_000

export function useRunUp() {
  const whole = shallowRef<Whole | null>(null)
  const trouble = ref('')
  const refused = ref<{ key: string; at: number; words: string } | null>(null)
  const past = shallowRef<Said[]>([])
  const progress = shallowRef<Schemas['PlanningOut'] | null>(null)
  const going = computed(() => Boolean(progress.value?.going))
  const path = () => ({ params: { path: { run_up_id: whole.value!.id } } })
  let kept = 0
  /** The planning whose end was told. */
  let told: number | null = null
  let readAt = Date.now()
  /** This moment on the clock of the run-up, minutes. */
  const now = ref(0)

  function take(found: Whole): void {
    whole.value = found
    progress.value = found.planning
    readAt = Date.now()
    now.value = found.now // at once: lines that are over would else stand for a second and push the lanes down
    kept = Number(found.planning?.progress.kept ?? 0)
    if (going.value) asking.resume()
  }
  const ticking = useIntervalFn(() => {
    if (whole.value) now.value = whole.value.now + (Date.now() - readAt) / 60_000
  }, 1000)

  const asking = useIntervalFn(
    async () => {
      if (!whole.value) return
      try {
        const found = await ask(api.GET('/api/run-ups/{run_up_id}/planning', path()))
        if (!found) return
        progress.value = found
        const over = found.state === 'done' || found.state === 'failed'
        const fresh = over && found.id !== told
        if (!found.going) asking.pause()
        if (fresh || !found.going || Number(found.progress.kept ?? 0) > kept) await read()
        if (fresh) tellEnd(found)
        trouble.value = ''
      } catch (error) {
        trouble.value = (error as Error).message
      }
    },
    ASKED_EVERY_MS,
    { immediate: false },
  )
  useIntervalFn(async () => {
    if (!whole.value || going.value || document.hidden) return
    try {
      await read()
      if (whole.value.stale) await again()
    } catch {
      // The next look tells; what is on the screen stands.
    }
  }, LOOKED_EVERY_MS)
  // What is begun, done or abandoned at the stove is so here at once.
  const looking = useThrottleFn(() => read().catch(() => undefined), 700, true)
  useListen().onChanged(() => {
    if (whole.value) void looking()
  })
  function tellEnd(found: Schemas['PlanningOut']): void {
    told = found.id
    const answer = found.answer as { refused?: string; key?: string; at?: number; words?: string }
    if (answer.refused) refused.value = { key: answer.key ?? '', at: answer.at ?? 0, words: answer.refused }
    else if (answer.words) trouble.value = answer.words
  }
  async function read(): Promise<void> {
    take(await ask(api.GET('/api/run-ups/{run_up_id}', path())))
  }

  /** Opens run-up `id`; what changed since it was planned is planned anew. */
  async function open(id: number): Promise<void> {
    take(await ask(api.GET('/api/run-ups/{run_up_id}', { params: { path: { run_up_id: id } } })))
    ticking.resume()
    if (!going.value) told = progress.value?.id ?? null
    if (whole.value!.stale) await again()
  }
  async function act(work: () => Promise<Whole>): Promise<boolean> {
    refused.value = null
    try {
      take(await work())
      trouble.value = ''
      return true
    } catch (error) {
      if (error instanceof Taken) await read()
      trouble.value = error instanceof Refused ? error.message : (error as Error).message
      return false
    }
  }
  const again = () => act(() => ask(api.POST('/api/run-ups/{run_up_id}/plan', path())))
  const cancel = () => act(() => ask(api.POST('/api/run-ups/{run_up_id}/cancel', path())))
  /** Changes the cook's own word and has it planned. */
  async function say(change: (said: Said) => void, remember = true): Promise<boolean> {
    const before = whole.value!.document
    const said = JSON.parse(JSON.stringify(before)) as Said
    change(said)
    return put(said, remember ? before : null)
  }
  async function put(said: Said, before: Said | null): Promise<boolean> {
    const body = { document: said as unknown as Record<string, unknown>, revision: whole.value!.revision }
    const done = await act(() => ask(api.PUT('/api/run-ups/{run_up_id}', { ...path(), body })))
    if (done && before) past.value = [...past.value.slice(-30), before]
    return done
  }
  async function undo(): Promise<void> {
    const before = past.value.at(-1)
    if (!before) return
    // What happened at the stove stays as it happened.
    const marks = whole.value!.document.marks
    if (await put({ ...before, marks }, null)) past.value = past.value.slice(0, -1)
  }
  const remember = () => (past.value = [...past.value.slice(-30), whole.value!.document])
  const move = (key: string, at: number, anyway = false) => {
    remember()
    return act(() => ask(api.POST('/api/run-ups/{run_up_id}/move', { ...path(), body: { key, at, anyway } })))
  }
  const mark = (key: string, what: 'began' | 'over' | 'undo') =>
    act(() =>
      ask(
        api.POST('/api/run-ups/{run_up_id}/mark', {
          ...path(),
          body: { key, what, revision: whole.value!.revision },
        }),
      ),
    )
  const mend = (key: string) => {
    remember()
    return act(() =>
      ask(api.POST('/api/run-ups/{run_up_id}/mend', { ...path(), body: { key, revision: whole.value!.revision } })),
    )
  }
  const call = (line: number, portions: number, table: string) =>
    act(() => ask(api.POST('/api/run-ups/{run_up_id}/calls', { ...path(), body: { line, portions, table } })))
  const callGone = (number: number, gone: boolean) =>
    act(() =>
      ask(
        api.POST('/api/run-ups/{run_up_id}/calls/{number}', {
          params: { path: { run_up_id: whole.value!.id, number } },
          body: { gone },
        }),
      ),
    )
  return {
    whole,
    progress,
    going,
    trouble,
    refused,
    past,
    now,
    open,
    again,
    cancel,
    say,
    undo,
    move,
    mark,
    mend,
    call,
    callGone,
  }
}
export type RunUpOpen = ReturnType<typeof useRunUp>

/** A minute as the kitchen's clock shows it. */
export function clockOf(minute: number): string {
  const whole = Math.floor(minute + 1e-6)
  const day = ((whole % 1440) + 1440) % 1440
  return `${String(Math.floor(day / 60)).padStart(2, '0')}:${String(day % 60).padStart(2, '0')}`
}
export function minutesOf(minutes: number): string {
  if (minutes < 1) return `${Math.round(minutes * 60)} s`
  const rounded = minutes < 10 ? Math.round(minutes * 2) / 2 : Math.round(minutes)
  return rounded >= 90 ? `${Math.floor(rounded / 60)} h ${rounded % 60} min` : `${number(rounded)} min`
}
/** Minutes east of UTC of this browser's clock. */
export const offsetHere = () => -new Date().getTimezoneOffset()
