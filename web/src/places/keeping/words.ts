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

/** What readings prove of a tray, in a word: the worst of its stages. */
export function verdictWords(tray: Schemas['TrayOut']): string {
  const all = tray.stages.map((stage) => stage.verdict)
  const worst = (['missed', 'not-shown', 'open', 'met'] as const).find((one) => all.includes(one)) ?? 'open'
  return { missed: 'missed', 'not-shown': 'not shown', open: 'cooling', met: 'cooled in time' }[worst]
}

interface Said {
  tray?: number
  although?: boolean
  asked_c?: number
  celsius?: number
  grams?: number
  purpose?: string
  reason?: string
  why?: string
  words?: string
}

export function eventWords(event: Schemas['EventOut']): string {
  const said = event.data as Said
  const tray = said.tray ? `, tray ${said.tray}` : ''
  return (
    {
      temperature: temperature(said.celsius ?? 0, 1) + tray,
      drawn: `${scaleReads(said.grams ?? 0)} ${event.set_aside ? 'set aside' : 'taken out'}${said.purpose ? ` for ${said.purpose}` : ''}${said.although ? ', although not shown cooled in time' : ''}`,
      thrown: `${scaleReads(said.grams ?? 0)} thrown away${tray}: ${said.reason ?? ''}`,
      warmed: `warmed through: ${said.celsius === undefined ? 'nobody read the middle' : `${temperature(said.celsius, 1)} in the middle`}, ${temperature(said.asked_c ?? 0)} asked`,
      frozen: 'into the freezer',
      thawed: 'out of the freezer',
      action: said.words ?? '',
      corrected: `corrected: ${said.why ?? ''}${said.celsius === undefined ? '' : `, it was ${temperature(said.celsius, 1)}`}`,
    }[event.kind] ?? event.kind
  )
}
