/** What specs share: a wire of our own under the real client, and a memory in place of the browser's. */
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { readFileSync } from 'node:fs'
import { flushPromises, mount } from '@vue/test-utils'
import { NMessageProvider } from 'naive-ui'
import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import { h, type Component } from 'vue'
import { createMemoryHistory, createRouter, RouterView } from 'vue-router'
import { anotherDevice } from '@/shell/keep'

// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Loose = Record<string, any>
export type Reply = { status: number; body: unknown }

export const wire = {
  asked: [] as { path: string; body: Loose; method: string }[],
  answer: (() => ({ status: 200, body: {} })) as (path: string, body: Loose, method: string) => Reply | Promise<Reply>,
}
export const kept = new Map<string, string>()

/** The client with its own reading of answers; only the wire is ours. */
export function clientOver<Original extends object>(original: Original): Original {
  const call = (method: string) => async (path: string, init?: { body?: Loose }) => {
    const body = JSON.parse(JSON.stringify(init?.body ?? {})) as Loose
    wire.asked.push({ path, body, method })
    const { status, body: said } = await wire.answer(path, body, method)
    const response = new Response(null, { status })
    return response.ok ? { data: said, response } : { error: said, response }
  }
  return { ...original, api: { GET: call('GET'), POST: call('POST'), PUT: call('PUT'), DELETE: call('DELETE') } }
}

/** Empty the wire and the memory, before each. */
export function fresh(): void {
  kept.clear()
  globalThis.indexedDB = new IDBFactory()
  anotherDevice()
  wire.asked.length = 0
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  })
}

export const refused = (field: string): Reply => ({
  status: 422,
  body: { problems: [{ field, message: 'is wrong', remedy: 'Mend it' }] },
})

/** What the API says of the demo kitchen, by method and path; `python -m tools.answers` writes it. */
export const demo = (() => {
  let told: Loose | null = null
  return (key: string): Loose => {
    told ??= JSON.parse(readFileSync('../var/answers.json', 'utf-8')) as Loose
    return JSON.parse(JSON.stringify(told[key] ?? null)) as Loose
  }
})()
/** A server that says what it says of the demo kitchen. */
export function demoServer(path: string, _: Loose, method: string): Reply {
  const body = demo(`${method} ${path}`)
  return body === null ? { status: 404, body: { message: `not told: ${method} ${path}` } } : { status: 200, body }
}

/** Mounts a part or a place as the shell does: someone signed in, messages, addresses. */
export async function mounted(component: Component, props: Loose = {}) {
  setActivePinia(createPinia())
  // Not imported above: the client it asks is mocked by what is in this file.
  const { useSession } = await import('@/shell/session')
  await useSession().know()
  const { useActs } = await import('@/shell/acts')
  await useActs().ready
  const place = { render: () => h(component, props) }
  const routes = [{ path: '/:rest(.*)*', component: place }]
  const router = createRouter({ history: createMemoryHistory(), routes })
  await router.push('/here')
  const host = { render: () => h(NMessageProvider, null, () => h(RouterView)) }
  const page = mount(host, { attachTo: document.body, global: { plugins: [router] } })
  await flushPromises()
  const inside = page.findComponent(component)
  return {
    page,
    router,
    inside,
    /** All there is to read, dialogs too. */
    text: () => document.body.textContent?.replace(/\s+/g, ' ') ?? '',
    field: (label: string) => inside.get<HTMLInputElement>(`[aria-label="${label}"]`),
    press: async (words: string) => {
      const button = [...document.querySelectorAll<HTMLElement>('button')].find((b) => b.textContent?.trim() === words)
      if (!button) throw new Error(`no button says “${words}”`)
      button.click()
      await flushPromises()
    },
  }
}
