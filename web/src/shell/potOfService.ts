/** Putting a pot of a service on: as often as it is planned, and one more where a cook says so. */
import { api, ask, Refused, Taken, type Schemas } from '@/api/client'

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

/** What the key of a task begins with that warms what is kept. */
export const WARM = 'warm:'

/** What is kept of a sauce on the stove, drawn from its tray; null: nothing of it is kept here, so it is no pot. */
export async function beginWarming(service_id: number, task: string, use_unshown?: boolean): Promise<number | null> {
  try {
    const path = { service_id }
    const body = { task, use_unshown }
    return (await ask(api.POST('/api/keeping/for-service/{service_id}', { params: { path }, body }))).batch_id
  } catch (error) {
    if (error instanceof Refused && error.problems[0]?.field === 'pot') return null
    if (!(error instanceof Taken)) throw error
    const { message } = error.body as Schemas['PotBegun']
    return beginWarming(service_id, task, window.confirm(`${message}\n\nOK: use it all the same. Cancel: leave it.`))
  }
}
