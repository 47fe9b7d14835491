/** The pots that are on now, for the hob strip. */
import { useIntervalFn, useNow } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { secondsLeft } from './timer'
import { api, ask, type Schemas } from '@/api/client'

export const useHob = defineStore('hob', () => {
  const pots = ref<Schemas['BatchLine'][]>([])
  /** Server clock minus ours, ms: timers are told against the server's. */
  const skewMs = ref(0)

  async function look(): Promise<void> {
    pots.value = await ask(api.GET('/api/stove'))
    const first = pots.value[0]
    if (first) setClock(first.now)
  }
  function setClock(serverNow: string): void {
    skewMs.value = Date.parse(serverNow) - Date.now()
  }
  /** One clock for every timer that is shown, so that they turn over at the same second. */
  const now = useNow({ interval: 250 })
  const left = (pot: { timer_started_at?: string | null; timer_s: number }) =>
    secondsLeft(pot.timer_started_at, pot.timer_s, now.value.getTime() + skewMs.value)
  useIntervalFn(() => void look().catch(() => undefined), 15_000)

  return { pots, left, look, setClock }
})
