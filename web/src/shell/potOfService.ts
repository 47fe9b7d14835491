/** Putting a pot of a service on: as often as it is planned, and one more where a cook says so. */
import { api, ask, Taken, type Schemas } from '@/api/client'

/** The batch that was begun, or the one that is on already; null: it was cooked, and no more is wanted. */
export async function beginPot(
  service_id: number,
  pot: string,
): Promise<{ id: number; made: Schemas['BatchOut'] | null } | null> {
  const begin = (one_more: boolean) =>
    ask(
      api.POST('/api/stove/of-service/{service_id}', {
        params: { path: { service_id } },
        body: { pot, one_more },
      }),
    )
  try {
    const made = await begin(false)
    return { id: made.id, made }
  } catch (error) {
    if (!(error instanceof Taken)) throw error
    const { batch, on, message } = error.body as Schemas['PotBegun']
    if (on) return { id: batch, made: null }
    if (!window.confirm(`${message} Cook one more?`)) return null
    const made = await begin(true)
    return { id: made.id, made }
  }
}
