/** How a finished sauce waits, in a line. */
import type { Schemas } from '@/api/client'

export function waiting(waits: Schemas['Held']): string {
  const ml = Math.round(waits.let_down_ml)
  return `waits ${Math.round(waits.minutes)} min, ${Math.round(waits.temperature_c)} °C${ml ? `: ${ml} mL brings it back` : ''}`
}
