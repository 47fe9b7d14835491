/** What specs share: a wire of our own under the real client, and a memory in place of the browser's. */
import { vi } from 'vitest'

// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Loose = Record<string, any>
export type Reply = { status: number; body: unknown }

export const wire = {
  asked: [] as { path: string; body: Loose }[],
  answer: (() => ({ status: 200, body: {} })) as (path: string, body: Loose) => Reply | Promise<Reply>,
}
export const kept = new Map<string, string>()

/** The client with its own reading of answers; only the wire is ours. */
export function clientOver<Original extends object>(original: Original): Original {
  const call = async (path: string, init?: { body?: Loose }) => {
    const body = JSON.parse(JSON.stringify(init?.body ?? {})) as Loose
    wire.asked.push({ path, body })
    const { status, body: said } = await wire.answer(path, body)
    const response = new Response(null, { status })
    return response.ok ? { data: said, response } : { error: said, response }
  }
  return { ...original, api: { GET: call, POST: call, PUT: call } }
}

/** Empty the wire and the memory, before each. */
export function fresh(): void {
  kept.clear()
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
