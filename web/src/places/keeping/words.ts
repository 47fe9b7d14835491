/** What is kept, in words. */
import type { Schemas } from '@/api/client'
import { dayOf, scaleReads } from '@/parts/format'
import { temperature } from '@/parts/ways'

export function stateWords(kept: Schemas['KeptLine']): string {
  return {
    cooling: `cooling; until ${dayOf(kept.use_by)}`,
    kept: `until ${dayOf(kept.use_by)}`,
    today: 'use it today',
    over: `past its day, ${dayOf(kept.use_by)}`,
    frozen: 'in the freezer',
    gone: 'used up',
  }[kept.state]!
}

interface Said {
  celsius?: number
  grams?: number
  purpose?: string
  reason?: string
  why?: string
  words?: string
}

export function eventWords(event: Schemas['EventOut']): string {
  const said = event.data as Said
  return (
    {
      temperature: temperature(said.celsius ?? 0, 1),
      drawn: `${scaleReads(said.grams ?? 0)} taken out${said.purpose ? ` for ${said.purpose}` : ''}`,
      thrown: `${scaleReads(said.grams ?? 0)} thrown away: ${said.reason ?? ''}`,
      frozen: 'into the freezer',
      thawed: 'out of the freezer',
      action: said.words ?? '',
      corrected: `corrected: ${said.why ?? ''}`,
    }[event.kind] ?? event.kind
  )
}
