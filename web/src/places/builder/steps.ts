/** Fresh steps, as data, and the words for choosing one. */
import type { LooseSheet } from './draft'

const grams = (value: number) => ({ value, unit: 'g' })

/** Whether a seasoning's amount is "salt up to so much" rather than a weight. */
export function isToSalt(amount: unknown): amount is { to_salt_pct: number | string } {
  return typeof amount === 'object' && amount !== null && 'to_salt_pct' in amount
}

export const kindsOfStep: { key: string; name: string; fresh: () => LooseSheet }[] = [
  {
    key: 'roux',
    name: 'Roux',
    fresh: () => ({
      op: 'roux',
      fat: { ingredient: 'butter-unsalted', amount: grams(60) },
      flour: { ingredient: 'wheat-flour', amount: grams(60) },
      colour: 'white',
      minutes: 2,
    }),
  },
  {
    key: 'add',
    name: 'Pour in',
    fresh: () => ({ op: 'add', ingredient: 'milk-whole', amount: { value: 1, unit: 'L' } }),
  },
  { key: 'simmer', name: 'Simmer', fresh: () => ({ op: 'simmer', minutes: 5, heat: 'simmer' }) },
  { key: 'reduce', name: 'Boil down', fresh: () => ({ op: 'reduce', to: { share: 0.8 }, heat: 'lively' }) },
  {
    key: 'melt',
    name: 'Melt cheese',
    fresh: () => ({ op: 'melt', ingredient: 'cheese-hard-alpine', amount: grams(100) }),
  },
  {
    key: 'season',
    name: 'Season',
    fresh: () => ({ op: 'season', ingredient: 'nutmeg', amount: grams(1) }),
  },
  {
    key: 'salt',
    name: 'Salt to taste',
    fresh: () => ({ op: 'season', ingredient: 'salt', amount: { to_salt_pct: 0.8 } }),
  },
]

export const heats = [
  { value: 'bare-simmer', label: 'bare simmer' },
  { value: 'simmer', label: 'simmer' },
  { value: 'lively', label: 'lively' },
  { value: 'rolling', label: 'rolling boil' },
]
export const colours = ['white', 'blond', 'brown', 'dark'].map((value) => ({ value, label: value }))
export const stops = [
  { value: 'share', label: 'a share left' },
  { value: 'mass', label: 'a weight' },
  { value: 'volume', label: 'a volume' },
  { value: 'nearly-dry', label: 'nearly dry' },
]
export const liquidIn = [
  { value: 'cold-gradual', label: 'cold, in splashes' },
  { value: 'warm-stream', label: 'warm, in a thin stream' },
  { value: 'hot-at-once', label: 'hot, all at once' },
  { value: 'cold-roux-into-boiling', label: 'cold roux into boiling liquid' },
]
