/** Putting a pot of a service on: as often as it is planned, and one more where a cook says so. */
import { api, ask, Taken, type Schemas } from '@/api/client'

type Asked = Pick<Schemas['StartPotIn'], 'one_more' | 'use_unshown'>

/** The batch that was begun, or the one that is on already; null: it was cooked, and no more is wanted. */
export async function beginPot(
  service_id: number,
  pot: string,
  asked: Asked = { one_more: false },
): Promise<{ id: number; made: Schemas['BatchOut'] | null } | null> {
  try {
    const made = await ask(
      api.POST('/api/stove/of-service/{service_id}', { params: { path: { service_id } }, body: { pot, ...asked } }),
    )
    return { id: made.id, made }
  } catch (error) {
    if (!(error instanceof Taken)) throw error
    const { batch, on, asks, message } = error.body as Schemas['PotBegun']
    if (asks?.length) {
      // What was not shown to have cooled in time is never drawn on without a word.
      const use_unshown = window.confirm(`${message}\n\nOK: use it all the same. Cancel: begin without it.`)
      return beginPot(service_id, pot, { ...asked, use_unshown })
    }
    if (on && batch) return { id: batch, made: null }
    if (!window.confirm(`${message} Cook one more?`)) return null
    return beginPot(service_id, pot, { ...asked, one_more: true })
  }
}
