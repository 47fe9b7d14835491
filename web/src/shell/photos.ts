/**
 * Photographs of pots on their way to the server: held until it has them, whatever page is looked at and
 * whoever signs in next, and sent only as those of who took them. They are too large for this device's small
 * memory: closing or reloading the page loses them, and the browser asks before.
 */
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, ask, Refused } from '@/api/client'
import { newKey } from '@/api/once'
import { useActs } from './acts'
import { useSession } from './session'

export interface PhotoWaiting {
  key: string
  batch: number
  step: number
  at: string
  file: Blob
  url: string
  /** Whose sign-in it was taken under, and who was cooking at this device then. */
  session: number | null
  doneBy: number | null
  by: string
}

export const usePhotos = defineStore('photos', () => {
  const session = useSession()
  const acts = useActs()
  const waiting = ref<PhotoWaiting[]>([])
  /** Why the last one is not there yet, or was not taken; by pot. */
  const troubles = ref(new Map<number, string>())

  const ours = (photo: PhotoWaiting) => photo.session === (session.who?.session_id ?? null)
  /** Those of a pot that who is signed in took. */
  const of = (batch: number) => waiting.value.filter((photo) => photo.batch === batch && ours(photo))

  /** Who has photographs here that wait for their own sign-in. */
  const others = computed(() => [...new Set(waiting.value.filter((photo) => !ours(photo)).map(({ by }) => by))])

  /** Taken now. */
  function take(batch: number, step: number, file: Blob): void {
    troubles.value.delete(batch)
    const { session_id = null, id = null, called = '' } = session.who ?? {}
    const photo = { key: newKey(), batch, step, at: new Date().toISOString(), file, url: URL.createObjectURL(file) }
    waiting.value = [...waiting.value, { ...photo, session: session_id, doneBy: id, by: called || 'somebody' }]
  }
  function drop(gone: PhotoWaiting): void {
    URL.revokeObjectURL(gone.url)
    waiting.value = waiting.value.filter((photo) => photo.key !== gone.key)
  }

  let sending: Promise<void> | null = null
  function send(): Promise<void> {
    sending ??= sendAll().finally(() => (sending = null))
    return sending
  }
  async function sendAll(): Promise<void> {
    for (const photo of waiting.value.filter(ours))
      try {
        await sendOne(photo)
        drop(photo)
        troubles.value.delete(photo.batch)
        await acts.load(photo.batch).catch(() => undefined)
      } catch (error) {
        troubles.value.set(photo.batch, (error as Error).message)
        if (error instanceof Refused) drop(photo)
      }
  }
  async function sendOne({ key, batch, step, at, file, doneBy }: PhotoWaiting): Promise<void> {
    await ask(
      api.POST('/api/stove/{batch_id}/photos', {
        params: { path: { batch_id: batch } },
        body: { key, at, step, done_by: doneBy, file: '' },
        bodySerializer: () => {
          const form = new FormData()
          const fields = { key, at, step, done_by: doneBy }
          for (const [name, value] of Object.entries(fields)) if (value !== null) form.append(name, String(value))
          form.append('file', file, 'pot.jpg')
          return form
        },
      }),
    )
  }
  useEventListener(window, 'online', () => void send())
  useIntervalFn(() => {
    if (waiting.value.some(ours)) void send()
  }, 5000)
  useEventListener(window, 'beforeunload', (event: BeforeUnloadEvent) => {
    if (waiting.value.length) event.preventDefault()
  })

  return { waiting, others, troubles, of, take, send }
})
