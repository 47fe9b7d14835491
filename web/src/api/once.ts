/**
 * What is sent again because its answer was lost happens once: it carries the key it had the first time,
 * through a reload too, until something is answered.
 */
import type { Middleware } from 'openapi-fetch'

const KEPT = 'kestrel.unanswered'
const LASTS_MS = 60 * 60 * 1000
/** Reckoned only: nothing is made there. */
const MAKES_NOTHING = /^\/api\/(work|accounts)\/|\/(work|flow|scale|short|read|cooling|fix|correct|from-label)$/

type Unanswered = Record<string, { key: string; since: number }>

/** A key no other act has. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(12))
  return [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('')
}

/** Where a device keeps nothing, a key lasts until the page is left. */
let here: Unanswered = {}
function stored(): Unanswered {
  try {
    return JSON.parse(sessionStorage.getItem(KEPT) ?? '{}') as Unanswered
  } catch {
    return {}
  }
}
function unanswered(): Unanswered {
  const now = Date.now()
  const all = Object.entries({ ...here, ...stored() })
  return Object.fromEntries(all.filter(([, one]) => now - one.since < LASTS_MS))
}
function keep(all: Unanswered): void {
  here = all
  try {
    sessionStorage.setItem(KEPT, JSON.stringify(all))
  } catch {
    /* full or closed */
  }
}

/** Two numbers of 32 bits from a text: short, and alike for the same text only. */
function digest(text: string): string {
  let [a, b] = [0xdeadbeef, 0x41c6ce57]
  for (let n = 0; n < text.length; n++) {
    const code = text.charCodeAt(n)
    a = Math.imul(a ^ code, 2654435761)
    b = Math.imul(b ^ code, 1597334677)
  }
  return `${(a >>> 0).toString(36)}.${(b >>> 0).toString(36)}.${text.length}`
}

async function markOf(request: Request): Promise<string> {
  const body = await request.clone().text()
  return digest(`${request.method} ${request.url}\n${body}`)
}

const asked = new WeakMap<Request, string>()

export const once: Middleware = {
  async onRequest({ request }) {
    if (request.method !== 'POST' || MAKES_NOTHING.test(new URL(request.url).pathname)) return undefined
    if (request.headers.get('Content-Type')?.startsWith('multipart/')) return undefined
    const mark = await markOf(request)
    const all = unanswered()
    const one = all[mark] ?? { key: newKey(), since: Date.now() }
    keep({ ...all, [mark]: one })
    request.headers.set('Kestrel-Act', one.key)
    asked.set(request, mark)
    return request
  },
  onResponse({ request, response }) {
    const mark = asked.get(request)
    // From 500 on somebody between may have answered: what became of it is not known.
    if (mark === undefined || response.status >= 500) return
    keep(Object.fromEntries(Object.entries(unanswered()).filter(([other]) => other !== mark)))
  },
}
