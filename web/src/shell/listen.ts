/** What happens in the kitchen, as it happens: one stream for the whole of the screen. */
import { createEventHook, useEventListener } from '@vueuse/core'
import { defineStore } from 'pinia'
import type { Schemas } from '@/api/client'

export interface ReadingTold {
  device: number
  batch: number | null
  kind: string
  value: number
  at: string
  poured_g: number | null
  probed: Schemas['Probed'] | null
  asks: string | null
}
export interface WatchedTold {
  batch: number
  watched: Schemas['Watched']
}
/** ms until a stream that was refused is asked for again. */
const AGAIN = 5000

export const useListen = defineStore('listen', () => {
  const changed = createEventHook<number | null>()
  const devices = createEventHook<null>()
  const reading = createEventHook<ReadingTold>()
  const watched = createEventHook<WatchedTold>()
  const kept = createEventHook<number | null>()
  const KINDS: Record<string, (about: never) => void> = {
    // Whoever was away looks at everything.
    hello: () => void changed.trigger(null),
    look: () => void changed.trigger(null),
    batch: ({ id }: { id: number }) => void changed.trigger(id),
    devices: () => void devices.trigger(null),
    kept: ({ id }: { id: number }) => void kept.trigger(id),
    reading: (about: ReadingTold) => void reading.trigger(about),
    watched: (about: WatchedTold) => void watched.trigger(about),
  }
  function hear(what: string, text: string): void {
    KINDS[what]?.(JSON.parse(text) as never)
  }

  let source: EventSource | null = null
  let on = false
  let letGo: (() => void) | null = null
  // A browser has six lines for a server, however many windows: one window listens and tells the others.
  const others = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('kestrel.live')
  if (others) others.onmessage = (event: MessageEvent<[string, string]>) => hear(...event.data)

  function begin(): void {
    if (on || typeof EventSource === 'undefined') return
    on = true
    if (!others || !navigator.locks) return open()
    void navigator.locks.request('kestrel.live', () => {
      if (!on) return
      open()
      return new Promise<void>((done) => (letGo = done))
    })
  }
  function open(): void {
    source = new EventSource('/api/live')
    for (const what of Object.keys(KINDS))
      source.addEventListener(what, (event) => {
        const { data } = event as MessageEvent<string>
        hear(what, data)
        others?.postMessage([what, data])
      })
    source.onerror = () => {
      if (source?.readyState !== EventSource.CLOSED) return // it comes again by itself
      setTimeout(() => {
        source?.close()
        if (on) open()
      }, AGAIN)
    }
  }
  function end(): void {
    on = false
    source?.close()
    source = null
    letGo?.()
    letGo = null
  }
  // A page that is kept for the way back would keep its line too.
  useEventListener(window, 'pagehide', end)
  useEventListener(window, 'pageshow', (event: PageTransitionEvent) => event.persisted && begin())

  return {
    begin,
    end,
    onChanged: changed.on,
    onDevices: devices.on,
    onReading: reading.on,
    onWatched: watched.on,
    onKept: kept.on,
  }
})
