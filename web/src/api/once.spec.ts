import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { newKey, once } from './once'

const memory = new Map<string, string>()
vi.stubGlobal('sessionStorage', {
  getItem: (key: string) => memory.get(key) ?? null,
  setItem: (key: string, value: string) => memory.set(key, value),
})

type Given = { request: Request; response: Response }
const before = once.onRequest as unknown as (given: { request: Request }) => Promise<Request | undefined>
const after = once.onResponse as unknown as (given: Given) => void

function request(path = '/api/sauces', body = '{"a":1}', method = 'POST'): Request {
  const text = method === 'GET' ? null : body
  return new Request(`http://kitchen.local${path}`, {
    method,
    body: text,
    headers: { 'Content-Type': 'application/json' },
  })
}
async function keyOf(one: Request): Promise<string | null> {
  await before({ request: one })
  return one.headers.get('Kestrel-Act')
}

describe('what is sent again', () => {
  beforeEach(() => memory.clear())
  afterEach(() => vi.useRealTimers())

  it('carries the same key until something is answered', async () => {
    const lost = request()
    const key = await keyOf(lost)
    expect(key).toMatch(/^[0-9a-f]{24}$/)
    const again = request()
    expect(await keyOf(again)).toBe(key)
    after({ request: again, response: new Response('{}', { status: 201 }) })
    expect(await keyOf(request())).not.toBe(key)
  })

  it('keeps its key where what became of it is not known', async () => {
    const first = request()
    const key = await keyOf(first)
    after({ request: first, response: new Response('', { status: 502 }) })
    const second = request()
    expect(await keyOf(second)).toBe(key)
    after({ request: second, response: new Response('{}', { status: 422 }) })
    expect(await keyOf(request())).not.toBe(key)
  })

  it('is told apart by where it goes and what is in it', async () => {
    const keys = await Promise.all([
      keyOf(request()),
      keyOf(request('/api/sauces', '{"a":2}')),
      keyOf(request('/api/dishes')),
    ])
    expect(new Set(keys).size).toBe(3)
  })

  it('needs none where nothing is made', async () => {
    for (const one of [
      request('/api/work/check'),
      request('/api/services/work'),
      request('/api/accounts/sign-in'),
      request('/api/sauces/3', '', 'PUT'),
      request('/api/sauces', '', 'GET'),
    ])
      expect(await keyOf(one)).toBeNull()
  })

  it('outlives a reload, but not an hour', async () => {
    vi.useFakeTimers()
    const key = await keyOf(request('/api/stove/free'))
    expect(memory.get('kestrel.unanswered')).toContain(key)
    vi.resetModules() // the page is loaded anew
    const { once: anew } = await import('./once')
    const again = request('/api/stove/free')
    await (anew.onRequest as unknown as typeof before)({ request: again })
    expect(again.headers.get('Kestrel-Act')).toBe(key)
    vi.advanceTimersByTime(61 * 60 * 1000)
    expect(await keyOf(request('/api/stove/free'))).not.toBe(key)
  })

  it('makes keys no other has', () => {
    expect(new Set(Array.from({ length: 200 }, newKey)).size).toBe(200)
  })
})
