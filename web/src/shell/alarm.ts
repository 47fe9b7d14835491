/** A timer that has run out is heard, felt and seen; each of it may be off on this device. */
import { useStorage, useVibrate } from '@vueuse/core'
import { computed, watch } from 'vue'
import { useHob } from './hob'

/** Seconds for which it sounds. */
const SOUNDS = 60

/** A browser only lets a screen tremble that was touched. */
const felt = (what: () => void) => {
  if (navigator.userActivation?.hasBeenActive) what()
}

/** Whether this device keeps quiet. */
export const useMuted = () => useStorage('kestrel.muted', false)

export function useAlarm() {
  const hob = useHob()
  const muted = useMuted()
  const { vibrate, stop } = useVibrate({ pattern: [300, 150, 300] })
  /** Timers that are over, the newest last. */
  const over = computed(() =>
    hob.pots.flatMap((pot) =>
      pot.timers.flatMap((timer) => {
        const left = hob.left({ timers: [timer] })!
        return left <= 0 ? [{ pot, timer, since: -left }] : []
      }),
    ),
  )
  const sounding = computed(() => !muted.value && over.value.some((one) => one.since < SOUNDS))

  let context: AudioContext | null = null
  let every: ReturnType<typeof setInterval> | undefined
  function beep(): void {
    felt(vibrate)
    try {
      context ??= new AudioContext()
      const sound = context.createOscillator()
      const volume = context.createGain()
      sound.frequency.value = 880
      const at = context.currentTime
      volume.gain.setValueAtTime(0.0001, at)
      volume.gain.exponentialRampToValueAtTime(0.4, at + 0.02)
      volume.gain.exponentialRampToValueAtTime(0.0001, at + 0.35)
      sound.connect(volume).connect(context.destination)
      sound.start(at)
      sound.stop(at + 0.4)
    } catch {
      // No sound on this device: it is seen all the same.
    }
  }
  watch(
    sounding,
    (on) => {
      clearInterval(every)
      if (on) {
        beep()
        every = setInterval(beep, 1500)
      } else felt(stop)
    },
    { immediate: true },
  )
  return { over }
}
