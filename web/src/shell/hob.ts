/** The pots that are on now, for the hob strip, and the one clock of every timer. */
import { useIntervalFn, useNow } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { secondsLeft } from './timer'
import { useActs } from './acts'
import { api, ask, type Schemas } from '@/api/client'

export type Line = Schemas['BatchLine']
type Timed = Pick<Line, 'timers'>

const KEPT = 'kestrel.hob'

export const useHob = defineStore('hob', () => {
  const acts = useActs()
  const told = ref<Line[]>(kept())
  /** Server clock minus ours, ms: timers are told against the server's. */
  const skewMs = ref(0)

  /** As the server has them, with what is done on this device and still on its way. */
  const pots = computed(() =>
    told.value.flatMap((line) => {
      const batch = acts.shown(line.id)
      if (!batch) return [line]
      if (batch.status !== 'on') return []
      const card = batch.cards[batch.step]
      const moved = batch.step !== line.step
      const words = moved
        ? { title: card?.title ?? 'Weigh and judge', cue: card?.cue ?? '', hands: card?.hands ?? 'all' }
        : {}
      const { step, steps, timers, ring, cook } = batch
      return [{ ...line, ...words, step, steps, timers, ring, cook, waits: moved ? null : line.waits }]
    }),
  )

  async function look(): Promise<void> {
    told.value = await ask(api.GET('/api/stove'))
    acts.offline = false
    try {
      localStorage.setItem(KEPT, JSON.stringify(told.value))
    } catch {
      // as in acts: only a reload without the server would miss it
    }
    const first = told.value[0]
    if (first) setClock(first.now)
  }
  function setClock(serverNow: string): void {
    skewMs.value = Date.parse(serverNow) - Date.now()
  }
  /** One clock for every timer that is shown, so that they turn over at the same second. */
  const now = useNow({ interval: 250 })
  const serverNow = computed(() => now.value.getTime() + skewMs.value)
  /** Seconds left of the timer that ends first (or of the one of that name); null where none runs. */
  function left(pot: Timed, name?: string): number | null {
    const lefts = pot.timers
      .filter((timer) => !name || timer.name === name)
      .map((timer) => secondsLeft(timer.started_at, timer.seconds, serverNow.value)!)
    return lefts.length ? Math.min(...lefts) : null
  }
  useIntervalFn(() => void look().catch(() => undefined), 15_000)

  return { pots, left, look, setClock, serverNow, skewMs }
})

function kept(): Line[] {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '[]') as Line[]
  } catch {
    return []
  }
}
