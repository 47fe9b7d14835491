/** Who is signed in, and what the kitchen offers to choose from. */
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, ask, Unanswered, type Schemas } from '@/api/client'
import { fixed, goBy, ways as kitchenWays } from '@/parts/ways'

import { forgetAll } from './keep'

const KEPT = 'kestrel.session'
interface Kept {
  who: Schemas['Who']
  catalogue: Schemas['Catalogue'] | null
}
/** What was kept for a reload without the server goes with who signs out; unsaved drafts, and what is not
 * sent yet, stay. */
function forget(): void {
  for (const key of [KEPT, 'kestrel.hob']) localStorage.removeItem(key)
  void forgetAll('batch.', 'ahead.')
}

export const useSession = defineStore('session', () => {
  const who = ref<Schemas['Who'] | null>(null)
  const catalogue = ref<Schemas['Catalogue'] | null>(null)
  let asked: Promise<void> | null = null

  async function load(): Promise<void> {
    try {
      who.value = await ask(api.GET('/api/accounts/me'))
      goBy(who.value.ways)
      if (who.value.username) catalogue.value = await ask(api.GET('/api/larder'))
      keep()
    } catch (error) {
      // Reloaded without the server: as it was when it was last there.
      const kept = error instanceof Unanswered && error.status === 0 ? localStorage.getItem(KEPT) : null
      if (!kept) throw error
      ;({ who: who.value, catalogue: catalogue.value } = JSON.parse(kept) as Kept)
      goBy(who.value?.ways)
    }
  }
  function keep(): void {
    try {
      if (who.value?.username)
        localStorage.setItem(KEPT, JSON.stringify({ who: who.value, catalogue: catalogue.value }))
      else localStorage.removeItem(KEPT)
    } catch {
      // A full or closed memory: only a reload without the server would miss it.
    }
  }
  /** Loaded once; later calls wait for the same answer. */
  function know(): Promise<void> {
    asked ??= load().catch((trouble) => {
      asked = null
      throw trouble
    })
    return asked
  }
  async function reload(): Promise<void> {
    asked = load()
    await asked
  }
  async function enter(username: string, password: string): Promise<void> {
    await ask(api.POST('/api/accounts/sign-in', { body: { username, password } }))
    await reload()
  }
  async function openKitchen(kitchen: string, username: string, password: string): Promise<void> {
    await ask(api.POST('/api/accounts/first', { body: { kitchen, username, password } }))
    await reload()
  }
  async function leave(): Promise<void> {
    await ask(api.POST('/api/accounts/sign-out'))
    forget()
    catalogue.value = null
    await reload()
  }

  const ingredients = computed(() => new Map((catalogue.value?.ingredients ?? []).map((row) => [row.key, row])))
  const grades = computed(() => catalogue.value?.grades ?? [])
  const uses = computed(() => catalogue.value?.uses ?? [])
  const pans = computed(() => catalogue.value?.pans ?? [])
  const ways = computed(() => catalogue.value?.ways ?? {})
  const burners = computed(() => catalogue.value?.burners ?? [])
  const gradeName = (key: string | null | undefined) =>
    grades.value.find((grade) => grade.key === key)?.name ?? key ?? ''

  /** "€ 4.20", never broken over two lines. */
  const money = (value: number) => `${kitchenWays.currency}\u00a0${fixed(value, 2)}`

  return {
    who,
    catalogue,
    ingredients,
    grades,
    uses,
    pans,
    burners,
    ways,
    know,
    reload,
    enter,
    openKitchen,
    leave,
    gradeName,
    money,
  }
})
