/** Numbers as a kitchen writes them. */
import type { Schemas } from '@/api/client'
import { both, decimal, fixed, locale, usMeasure, ways } from './ways'

const fractions: [number, string][] = [
  [0.125, '⅛'],
  [0.25, '¼'],
  [0.375, '⅜'],
  [0.5, '½'],
  [0.625, '⅝'],
  [0.75, '¾'],
  [0.875, '⅞'],
]

/** A plain number with as many digits as it needs, at most four that count. */
export function number(value: number): string {
  if (!Number.isFinite(value)) return '–'
  return decimal(String(Number(value.toPrecision(4))))
}

/** Whether it is so much of another sauce as it is written. */
export function isShare(of: unknown): of is { share: number } {
  return typeof of === 'object' && of !== null && 'share' in of
}

/** "all", "40 %". */
export function share(of: { share: number }): string {
  return of.share === 1 ? 'all' : `${number(100 * of.share)} %`
}

interface Amount {
  value: number
  unit: string
  measure?: { name: string; count: number } | null
}

/** "1 ½ cup": what is measured by hand in fractions, everything else in decimals. */
export function amount(of: Amount): string {
  if (of.measure) {
    const about = SYMBOLS.includes(of.measure.name) && of.measure.name === of.unit ? 'about ' : ''
    return about + amount({ value: of.measure.count, unit: of.measure.name })
  }
  return inParts(of)
    .map((part) => `${amountValue(part)} ${unitName(part)}`)
    .join(' + ')
}

const IN_BASE: Record<string, [number, 'g' | 'mL']> = { g: [1, 'g'], kg: [1000, 'g'], mL: [1, 'mL'], L: [1000, 'mL'] }

/** What is metric in US measures, where the kitchen has those first; empty otherwise. */
export function inUs(of: Amount): string {
  const base = of.measure ? undefined : IN_BASE[of.unit]
  return base && ways.measures === 'us' ? usMeasure(of.value * base[0], base[1]) : ''
}

/** As `amount`, with the measure the kitchen has first in front: to read, not to edit. */
export function told(of: Amount): string {
  const us = inUs(of)
  return us ? `${us} (${amount(of)})` : amount(of)
}

/** As `told`, but from a thousand grams or millilitres on in kilos and litres. */
export function bulk(of: Amount): string {
  if (of.measure || of.value < 1000 || !['g', 'mL'].includes(of.unit)) return told(of)
  return of.unit === 'g' ? grams(of.value) : millilitres(of.value)
}

const SYMBOLS = ['g', 'kg', 'mL', 'L', 'oz', 'lb', 'tsp', 'tbsp', 'fl oz']
/** "1 cup", "2 cups", "1 ½ pinches": the unit as it is spoken. */
export function unitName(of: { value: number; unit: string }): string {
  const { value, unit } = of
  if (value <= 1 || SYMBOLS.includes(unit)) return unit
  if (unit.endsWith('leaf')) return `${unit.slice(0, -1)}ves`
  return `${unit}${/(?:ch|sh|ss|x)$/.test(unit) ? 'es' : 's'}`
}

const FILLED_IN: Record<string, number> = { cup: 8, tbsp: 4, tsp: 4 }
const SPOON_ML: Record<string, number> = { cup: 240, tbsp: 15, tsp: 5 }
/** What no single cup or spoon holds, in two: "⅞ cup + 2 tsp". As the core fills them (saucier.units.spoons). */
export function inParts(of: { value: number; unit: string }): { value: number; unit: string }[] {
  const { value, unit } = of
  const parts = FILLED_IN[unit]
  if (!parts) return [of]
  const nearest = Math.round(value * parts) / parts
  if (unit === 'tsp' || Math.abs(nearest / value - 1) <= 0.02) return [{ value: Math.max(1 / parts, nearest), unit }]
  const whole = Math.floor(value * parts) / parts
  const restMl = (value - whole) * SPOON_ML[unit]!
  const smaller = restMl >= 15 ? 'tbsp' : 'tsp'
  if (!whole) return inParts({ value: restMl / SPOON_ML[smaller]!, unit: smaller })
  return [
    { value: whole, unit },
    { value: Math.max(1, Math.round((restMl / SPOON_ML[smaller]!) * 4)) / 4, unit: smaller },
  ]
}

export function amountValue(of: { value: number; unit: string }): string {
  if (!['g', 'kg', 'mL', 'L', 'oz', 'lb'].includes(of.unit)) {
    const whole = Math.floor(of.value + 1e-9)
    const rest = of.value - whole
    const sign = fractions.find(([size]) => Math.abs(size - rest) < 0.01)?.[1]
    if (sign) return whole ? `${whole} ${sign}` : sign
  }
  return number(of.value)
}

/** "465 g", "2.39 kg". */
export function grams(value: number): string {
  if (value >= 1000) return both(`${fixed(value / 1000, 2)} kg`, value, 'g')
  return both(value >= 20 ? `${Math.round(value)} g` : `${number(Math.round(value * 10) / 10)} g`, value, 'g')
}

/** "1258 g", "12.35 kg": what a scale reads. To the gram: a pan weighs ten times what is left in it
 * at the end of a reduction. */
export function scaleReads(value: number): string {
  return both(value >= 10_000 ? `${fixed(value / 1000, 2)} kg` : `${Math.round(value)} g`, value, 'g')
}

/** "400 g", "1 kg": a pack, as its label has it. */
export function pack(value: number): string {
  return value >= 1000 ? `${number(value / 1000)} kg` : `${number(value)} g`
}

/** "500 mL", "1 L": a pack of what pours. */
export function packOf(ml: number): string {
  return ml >= 995 ? `${number(Math.round(ml / 10) / 100)} L` : `${Math.round(ml)} mL`
}

/** "840 mL", "2.39 L". */
export function millilitres(value: number): string {
  return both(value >= 1000 ? `${fixed(value / 1000, 2)} L` : `${Math.round(value)} mL`, value, 'mL')
}

/** "22 mm", "3.5 mm". */
export const mm = (value: number, digits = 0) => `${fixed(value, digits)} mm`
/** "0.9 %". */
export const percent = (value: number, digits = 0) => `${fixed(value, digits)} %`

export function minutes(value: number): string {
  if (value < 1) return 'under 1 min'
  if (value < 90) return `${Math.round(value)} min`
  return `${Math.floor(value / 60)} h ${Math.round(value % 60)} min`
}

export function pascalSeconds(value: number): string {
  return `${decimal(String(Number(value.toPrecision(2))))} Pa·s`
}

export function day(iso: string): string {
  return writtenDay(new Date(iso))
}

/** A day without a time ("2026-03-30"), written as `day` does. */
export const dayOf = (iso: string) => writtenDay(new Date(`${iso}T12:00`))
function writtenDay(then: Date): string {
  if (locale() === 'sv-SE') return isoDay(then)
  return then.toLocaleDateString(locale(), { weekday: 'short', day: 'numeric', month: 'short' })
}

/** "14:05": a kitchen's clock has 24 hours, whatever its days look like. */
export const timeOf = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
/** "Fri 14:05": within a week. */
export const moment = (iso: string) =>
  new Date(iso).toLocaleString('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit' })
/** "Fri, 27 Nov, 14:05": in a record. */
export const dayAndTime = (iso: string) => `${day(iso)}, ${timeOf(iso)}`

export const familyNames: Record<string, string> = {
  'white-sauce': 'White sauce',
  veloute: 'Velouté',
  'cheese-sauce': 'Cheese sauce',
  'cream-veloute': 'Cream velouté',
  'liaison-sauce': 'Liaison sauce',
  'cream-reduction': 'Cream reduction',
  'cream-with-roux': 'Cream with roux',
  'soft-cream': 'Soft-cream finish',
  panade: 'Panade',
  'sauce-in-sauce': 'Sauce in a sauce',
  'flavoured-butter': 'Flavoured butter',
}

export type Grade = Schemas['GradeOut']

/** "2026-03-30": the day it is on this clock. */
export function isoDay(then: Date): string {
  const two = (n: number) => String(n).padStart(2, '0')
  return `${then.getFullYear()}-${two(then.getMonth() + 1)}-${two(then.getDate())}`
}
