/** The pots that are on now, for the hob strip. */
import { useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref } from 'vue'
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
  useIntervalFn(() => void look().catch(() => undefined), 15_000)

  return { pots, skewMs, look, setClock }
})
