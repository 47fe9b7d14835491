/** The pot that boils down as it is believed to be right now: what the server says, carried on by its tables. */
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import type { Schemas } from '@/api/client'
import { asLookedUp, lookedUp, type Look } from '@/shell/ahead'
import { useActs } from '@/shell/acts'
import { useHob } from '@/shell/hob'

type Watched = Schemas['Watched']
const MIN_MS = 60_000
/** A word of the server's that is newer than so is taken as it is. */
const FRESH_MIN = 0.2
/** How often what is ahead is asked for anew, while it boils. */
const ASKED_EVERY_MS = 45_000
/** From so many minutes on a step of the minutes is told as a correction. */
const TOLD_MIN = 2

export function useBelieved(
  id: number,
  batch: Ref<Schemas['BatchOut'] | undefined>,
  told: Ref<{ watched: Watched; at: number } | null>,
  correct: (words: string) => void,
) {
  const acts = useActs()
  const hob = useHob()
  const watched = computed(() => {
    const found = batch.value?.followed
    return found && found.at === batch.value?.step ? found.watched : null
  })
  const look = () => {
    if (watched.value) void acts.lookAhead(id)
  }
  watch(() => [batch.value?.revision, batch.value?.step, Boolean(watched.value)], look, { immediate: true })
  useIntervalFn(look, ASKED_EVERY_MS)

  /** Those of this very pot: what the server has heard since is not in them. */
  const tables = computed(() => {
    const found = acts.aheads.get(id)
    const ours = found?.step === batch.value?.step && found?.revision === batch.value?.revision
    return found?.ahead && ours ? found : null
  })
  const since = (at: number) => (hob.serverNow - at) / MIN_MS
  /** The last look the server has not heard of: it came after the tables were made, and is on its way. */
  const waiting = computed<Look | null>(() => {
    const from = Date.parse(tables.value?.at ?? '')
    const mine = (batch.value?.acts ?? []).filter(
      (act) => act.kind === 'saw' && act.step === batch.value?.step && !act.by && acts.isWaiting(act.key),
    )
    const last = mine.at(-1)
    if (!last || Number.isNaN(from)) return null
    const min = Math.max(0, (Date.parse(last.at) + hob.skewMs - from) / MIN_MS)
    return { what: String(last.data.what), value: Number(last.data.value), min }
  })
  /** Minutes since the server last said anything of it. */
  const ago = computed(() => {
    const words = [Date.parse(tables.value?.at ?? ''), told.value?.at ?? Number.NaN].filter((at) => !Number.isNaN(at))
    return words.length ? Math.max(0, since(Math.max(...words))) : null
  })
  const now = computed<Watched | null>(() => {
    const live = told.value
    if (live && since(live.at) < FRESH_MIN && !waiting.value) return live.watched
    const base = live?.watched ?? watched.value
    if (!base || !tables.value?.ahead) return base
    const figures = lookedUp(tables.value.ahead, Math.max(0, since(Date.parse(tables.value.at))), waiting.value)
    return { ...asLookedUp(base, figures), past: waiting.value ? null : base.past }
  })

  /** What was shown while the network was away: a step on its return is told, with its cause. */
  const away = ref<Schemas['Guess'] | null>(null)
  watch([() => acts.offline, now], () => {
    if (acts.offline && now.value) away.value = now.value.minutes_left
  })
  watch(
    () => batch.value?.revision,
    () => {
      const [before, after] = [away.value, watched.value?.minutes_left]
      if (acts.offline || !before || !after) return
      away.value = null
      const by = Math.abs(after.value - before.value)
      if (by > Math.min(TOLD_MIN, (before.high - before.low) / 2))
        correct(
          `Corrected: ${Math.round(after.value)} min left, not ${Math.round(before.value)}. ` +
            'What was seen without a network is counted in full now.',
        )
    },
  )
  return { now, ago }
}
