/** What was done at a pot, in words. */
import type { Schemas } from '@/api/client'
import { mm, percent, scaleReads } from '@/parts/format'
import { temperature } from '@/parts/ways'

interface Said {
  before?: number
  after?: number
  cook?: string
  grams?: number
  amount?: string
  how?: string
  name?: string
  pan?: string
  ring?: string
  seconds?: number
  text?: string
  title?: string
  to_step?: number
  value?: number | string
  what?: string
}

export function told(act: Schemas['ActTold'], titles: string[]): string {
  const said = act.data as Said
  const value = Number(said.value ?? 0)
  const step = (n: number | undefined) => titles[n ?? 0] ?? 'weigh and judge'
  switch (act.kind) {
    case 'go':
      return `on to: ${step(said.to_step)}`
    case 'added':
      return `in: ${step(act.step)}`
    case 'put':
      return `${said.grams === undefined ? said.amount : scaleReads(said.grams)} went in`
    case 'corrected':
      return `${scaleReads(said.grams ?? 0)} of what was held back went in`
    case 'skipped':
      return 'left out'
    case 'poured':
      return `${scaleReads(said.grams ?? 0)} went in, by the ${said.how}`
    case 'turned':
      return 'what is to come, weighed otherwise'
    case 'timer-on':
      return `timer${said.name === 'step' ? '' : ` for ${said.name}`}, ${Math.round((said.seconds ?? 0) / 6) / 10} min`
    case 'timer-off':
      return 'timer off'
    case 'stands':
      return `on ${said.ring || 'no ring'}${said.pan ? `, in the ${said.pan}` : ''}${said.cook ? `, ${said.cook}` : ''}`
    case 'left':
      return 'taken off'
    case 'back':
      return 'put back on'
    case 'through':
      return 'done'
    case 'saw':
      return (
        {
          scale: `scale ${scaleReads(value)}`,
          level: `level ${mm(value)}`,
          gone: `${percent(100 * value)} gone`,
          spoon: 'spoon picked',
          boils: 'it boils',
          probe: `the probe: ${temperature(value, 1)}`,
        }[said.what ?? ''] ?? ''
      )
    default:
      return said.text ?? said.title ?? ''
  }
}
