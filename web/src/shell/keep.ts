/**
 * What this device keeps for a reload without the server, in the browser's database: what was done and waits to be
 * sent, the pots, and what will be believed of them. A closed or full database keeps nothing: cooking goes on, and
 * only a reload would miss it.
 */
import { createStore, del, entries, get, set, type UseStore } from 'idb-keyval'

let opened: UseStore | null = null
const store = () => (opened ??= createStore('kestrel-fog', 'kept'))

async function orElse<T>(work: () => Promise<T>, otherwise: T): Promise<T> {
  try {
    return await work()
  } catch {
    return otherwise
  }
}
/** Whether it is kept. */
export const keep = (key: string, value: unknown) =>
  // What is reactive cannot be cloned into the database.
  orElse(() => set(key, JSON.parse(JSON.stringify(value)), store()).then(() => true), false)
export const forget = (key: string) => orElse(() => del(key, store()), undefined)
export const recall = <T>(key: string) => orElse(() => get<T>(key, store()), undefined)
/** Everything kept under keys that begin so. */
export async function recallAll<T>(head: string): Promise<[string, T][]> {
  const all = await orElse(() => entries<string, T>(store()), [])
  return all.filter(([key]) => String(key).startsWith(head))
}
export async function forgetAll(...heads: string[]): Promise<void> {
  for (const head of heads) for (const [key] of await recallAll(head)) await forget(key)
}
/** For tests: another device. */
export function anotherDevice(): void {
  opened = null
}
