/** How this kitchen writes figures: its degrees, measures, decimals, days and money. What is computed stays metric;
 * what the server says comes written so already. */
import { reactive } from 'vue'
import type { Schemas } from '@/api/client'

export const USUAL: Schemas['KitchenWays'] = {
  temperature: 'C',
  measures: 'metric',
  tablespoon_ml: 15,
  decimals: '.',
  dates: 'day',
  currency: '€',
}
export const ways = reactive({ ...USUAL })
export const goBy = (given: Schemas['KitchenWays'] | null | undefined) => Object.assign(ways, given ?? USUAL)

/** A number's text with the kitchen's decimal sign. */
export const decimal = (text: string) => (ways.decimals === ',' ? text.replace('.', ',') : text)
/** Words of ours with the decimals in them as the kitchen writes them. */
export const decimals = (words: string) => (ways.decimals === ',' ? words.replace(/(\d)\.(?=\d)/g, '$1,') : words)
/** So many digits behind the decimal sign. */
export const fixed = (value: number, digits: number) => decimal(value.toFixed(digits))

export const degrees = () => (ways.temperature === 'F' ? '°F' : '°C')
export const toShown = (celsius: number) => (ways.temperature === 'F' ? (celsius * 9) / 5 + 32 : celsius)
/** Degrees C, a number or typed, in the kitchen's own to show; as it is where it is no number. */
export function shownDegrees(celsius: unknown): unknown {
  const value = typeof celsius === 'string' && celsius.trim() ? Number(celsius.replace(',', '.')) : celsius
  if (ways.temperature !== 'F' || typeof value !== 'number' || !Number.isFinite(value)) return celsius
  return Math.round(10 * toShown(value)) / 10
}
/** What was typed in the kitchen's degrees, in °C; as it is where it is no number. */
export function toCelsius(typed: string): string {
  const value = Number(typed.trim().replace(',', '.'))
  if (ways.temperature !== 'F' || !typed.trim() || !Number.isFinite(value)) return typed
  return String(Math.round(((value - 32) * 500) / 9) / 100)
}
/** "65 °C", "149 °F". */
export const temperature = (celsius: number, digits = 0) => `${fixed(toShown(celsius), digits)} ${degrees()}`

const LOCALES = { day: 'en-GB', month: 'en-US', iso: 'sv-SE' } as const
export const locale = () => LOCALES[ways.dates]

const QUARTERS = ['', '¼', '½', '¾']
/** Grams or millilitres in US measures, as the server's words have them; empty where those are too coarse. */
export function usMeasure(base: number, unit: 'g' | 'mL'): string {
  if (unit === 'g') {
    if (base < 14) return ''
    return base < 453.592 ? `${fixed(base / 28.3495, 1)} oz` : `${fixed(base / 453.592, 2)} lb`
  }
  if (base < 30) return ''
  const quarters = Math.round((4 * base) / 240)
  if (base < 216 || Math.abs((quarters * 60) / base - 1) > 0.03)
    return base < 946 ? `${Math.round(base / 29.5735)} fl oz` : `${fixed(base / 946.353, 2)} qt`
  const words = [Math.floor(quarters / 4) || '', QUARTERS[quarters % 4]].filter(Boolean).join(' ')
  return `${words} ${quarters <= 4 ? 'cup' : 'cups'}`
}
/** Metric words, with the US measure before them where the kitchen has those first. */
export function both(metric: string, base: number, unit: 'g' | 'mL'): string {
  const us = ways.measures === 'us' ? usMeasure(base, unit) : ''
  return us ? `${us} (${metric})` : metric
}
