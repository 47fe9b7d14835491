/** How a finished sauce waits, in a line. */
import type { Schemas } from '@/api/client'
import { temperature } from '@/parts/ways'
import { millilitres } from '@/parts/format'

export function waiting(waits: Schemas['Held']): string {
  const ml = Math.round(waits.let_down_ml)
  return `waits ${Math.round(waits.minutes)} min, ${temperature(waits.temperature_c)}${ml ? `: ${millilitres(ml)} brings it back` : ''}`
}
