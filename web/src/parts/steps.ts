/** The steps as forms: which amounts they weigh, which settings they have, how they start. */

/** A step as typed: numbers and amounts may still be text. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type LooseStep = Record<string, any>

const grams = (value: number) => ({ value, unit: 'g' })
const of = (ingredient: string, amount: { value: number; unit: string }) => ({ ingredient, amount })

export interface Knob {
  key: string
  label: string
  /** `absent` is a switch that is on while there is no such entry: "what was lifted out". */
  kind: 'number' | 'percent' | 'choice' | 'switch' | 'absent'
  unit?: string
  options?: { value: string; label: string }[]
  /** Shown even while the step is not chosen. */
  always?: boolean
  /** Its unit says enough: no label over it. */
  bare?: boolean
  /** For food that gives its salt to the sauce alone. */
  forSalted?: boolean
}
export interface StepForm {
  op: string
  name: string
  group: string
  /** Where its amounts stand: '' is the step itself. `roles` come first in the choice. `all`: what it
   *  stands for without an ingredient; it then has no amount either. */
  rows: { part: string; roles: string[]; all?: string }[]
  knobs: Knob[]
  fresh: () => LooseStep
}

export const heats = [
  { value: 'bare-simmer', label: 'bare simmer' },
  { value: 'simmer', label: 'simmer' },
  { value: 'lively', label: 'lively' },
  { value: 'rolling', label: 'rolling boil' },
]
const colours = [
  { value: 'raw', label: 'raw (beurre manié)' },
  ...['white', 'blond', 'brown', 'dark'].map((value) => ({ value, label: value })),
]
export const stops = [
  { value: 'share', label: 'a share left' },
  { value: 'grade', label: 'until it is so thick' },
  { value: 'mass', label: 'a weight' },
  { value: 'volume', label: 'a volume' },
  { value: 'minutes', label: 'so many minutes' },
  { value: 'taste', label: 'to taste' },
  { value: 'nearly-dry', label: 'nearly dry' },
]
const hows = [
  { value: 'seared', label: 'seared, underdone' },
  { value: 'raw', label: 'raw' },
  { value: 'cooked', label: 'cooked through' },
]
const holds = [
  { value: 'liquid', label: 'hot liquid; the pot is thick' },
  { value: 'roux', label: 'beurre manié; the pot is thin' },
]
const purposes = [
  { value: 'top', label: 'for the top' },
  { value: 'correcting', label: 'to correct with' },
  { value: 'garnish', label: 'as garnish' },
  { value: 'pass', label: 'for the pass' },
]
const cheeseHeat = [
  { value: 'off', label: 'off the heat' },
  { value: 'low', label: 'over low heat' },
]
const min = (always = false): Knob => ({
  key: 'minutes',
  label: 'Minutes',
  kind: 'number',
  unit: 'min',
  always,
  bare: true,
})
const celsius = (key: string, label: string): Knob => ({ key, label, kind: 'number', unit: '°C' })
const rinsed: Knob = { key: 'rinsed', label: 'rinsed or blanched first', kind: 'switch', forSalted: true }
const FOOD = ['meat', 'fish', 'seafood', 'vegetable']
const PIECES = ['aromatic', 'vegetable', 'herb', 'meat', 'fish', 'seafood', 'nut']

export const forms: StepForm[] = [
  {
    op: 'roux',
    name: 'Roux',
    group: 'Thicken',
    rows: [
      { part: 'fat', roles: ['fat'] },
      { part: 'flour', roles: ['flour'] },
    ],
    knobs: [min(), { key: 'colour', label: 'Colour of the roux', kind: 'choice', options: colours }],
    fresh: () => ({
      op: 'roux',
      fat: of('butter-unsalted', grams(60)),
      flour: of('wheat-flour', grams(60)),
      colour: 'white',
      minutes: 2,
    }),
  },
  {
    op: 'add',
    name: 'Pour in',
    group: 'Liquid',
    rows: [{ part: '', roles: ['milk', 'stock', 'cream', 'wine'] }],
    knobs: [celsius('temperature_c', 'goes in at'), rinsed],
    fresh: () => ({ op: 'add', ...of('milk-whole', { value: 1, unit: 'L' }) }),
  },
  {
    op: 'simmer',
    name: 'Simmer',
    group: 'Fire',
    rows: [],
    knobs: [
      min(true),
      { key: 'heat', label: 'Heat', kind: 'choice', options: heats },
      { key: 'lid', label: 'lid on', kind: 'switch' },
      { key: 'pinned', label: 'keep these minutes in any batch', kind: 'switch' },
    ],
    fresh: () => ({ op: 'simmer', minutes: 5, heat: 'simmer' }),
  },
  {
    op: 'reduce',
    name: 'Boil down',
    group: 'Fire',
    rows: [],
    knobs: [
      { key: 'heat', label: 'Heat', kind: 'choice', options: heats },
      { key: 'minutes', label: 'a recipe says', kind: 'number', unit: 'min' },
      { key: 'pinned', label: 'keep these minutes in any batch', kind: 'switch' },
      { key: 'fixed', label: 'stop here whatever grade is asked', kind: 'switch' },
    ],
    fresh: () => ({ op: 'reduce', to: { share: 0.8 }, heat: 'rolling' }),
  },
  {
    op: 'melt',
    name: 'Melt cheese',
    group: 'Enrich',
    rows: [{ part: '', roles: ['cheese'] }],
    knobs: [{ key: 'heat', label: 'Cheese goes in', kind: 'choice', options: cheeseHeat }],
    fresh: () => ({ op: 'melt', ...of('cheese-hard-alpine', grams(100)) }),
  },
  {
    op: 'season',
    name: 'Season',
    group: 'Season',
    rows: [{ part: '', roles: ['spice', 'seasoning', 'acid', 'salt'] }],
    knobs: [],
    fresh: () => ({ op: 'season', ...of('nutmeg', grams(1)) }),
  },
  {
    op: 'start',
    name: 'Used pan',
    group: 'The pan',
    rows: [
      { part: 'fat', roles: ['fat'] },
      { part: 'juices', roles: ['juice'] },
    ],
    knobs: [],
    fresh: () => ({ op: 'start', fat: of('fat-poultry', grams(30)), juices: of('pan-juices', grams(50)) }),
  },
  {
    op: 'deglaze',
    name: 'Deglaze',
    group: 'The pan',
    rows: [{ part: '', roles: ['wine', 'spirit', 'stock'] }],
    knobs: [],
    fresh: () => ({ op: 'deglaze', ...of('wine-white-dry', { value: 120, unit: 'mL' }) }),
  },
  { op: 'flame', name: 'Flame', group: 'The pan', rows: [], knobs: [], fresh: () => ({ op: 'flame' }) },
  {
    op: 'sear',
    name: 'Sear',
    group: 'The pan',
    rows: [
      { part: 'fat', roles: ['fat'] },
      { part: '', roles: FOOD },
    ],
    knobs: [min(true)],
    fresh: () => ({ op: 'sear', fat: of('oil-neutral', grams(15)), ...of('poultry-breast', grams(400)), minutes: 4 }),
  },
  {
    op: 'return',
    name: 'Food back in',
    group: 'The pan',
    rows: [{ part: '', roles: FOOD }],
    knobs: [
      { key: 'how', label: 'It comes', kind: 'choice', options: hows },
      { key: 'amount', label: 'what was lifted out or seared', kind: 'absent' },
      min(true),
      celsius('temperature_c', 'goes in at'),
      { key: 'juice_pct', label: 'juice it gives', kind: 'number', unit: '%' },
    ],
    fresh: () => ({ op: 'return', ...of('poultry-breast', grams(400)), how: 'seared', temperature_c: 45 }),
  },
  {
    op: 'lift',
    name: 'Lift out',
    group: 'The pan',
    rows: [{ part: '', roles: FOOD, all: 'all pieces' }],
    knobs: [],
    fresh: () => ({ op: 'lift', ingredient: null }),
  },
  {
    op: 'sweat',
    name: 'Sweat',
    group: 'Aromatics',
    rows: [{ part: '', roles: PIECES }],
    knobs: [min(true), rinsed],
    fresh: () => ({ op: 'sweat', ...of('onion', grams(100)), minutes: 8 }),
  },
  {
    op: 'dust',
    name: 'Dust with flour',
    group: 'Thicken',
    rows: [{ part: '', roles: ['flour'] }],
    knobs: [min(), { key: 'colour', label: 'Colour of the flour', kind: 'choice', options: colours }],
    fresh: () => ({ op: 'dust', ...of('wheat-flour', grams(40)), minutes: 2 }),
  },
  {
    op: 'infuse',
    name: 'Steep',
    group: 'Aromatics',
    rows: [{ part: '', roles: PIECES }],
    knobs: [min(true)],
    fresh: () => ({ op: 'infuse', ...of('onion', grams(60)), minutes: 15 }),
  },
  {
    op: 'strain',
    name: 'Strain',
    group: 'Aromatics',
    rows: [],
    knobs: [{ key: 'holds_back', label: 'each g of pieces holds back', kind: 'number', unit: 'g sauce' }],
    fresh: () => ({ op: 'strain' }),
  },
  {
    op: 'liaison',
    name: 'Liaison',
    group: 'Enrich',
    rows: [
      { part: 'yolk', roles: ['egg'] },
      { part: 'cream', roles: ['cream', 'milk'] },
    ],
    knobs: [celsius('heat_to_c', 'warm to')],
    fresh: () => ({
      op: 'liaison',
      yolk: of('egg-yolk', { value: 3, unit: 'piece' }),
      cream: of('cream-35', grams(100)),
      heat_to_c: 80,
    }),
  },
  {
    op: 'mount',
    name: 'Mount with butter',
    group: 'Enrich',
    rows: [{ part: '', roles: ['fat'] }],
    knobs: [],
    fresh: () => ({ op: 'mount', ...of('butter-unsalted', grams(40)) }),
  },
  {
    op: 'finish',
    name: 'Finish off the heat',
    group: 'Enrich',
    rows: [{ part: '', roles: ['soft-cream', 'puree', 'herb', 'cream'] }],
    knobs: [celsius('temperature_c', 'goes in at'), rinsed],
    fresh: () => ({ op: 'finish', ...of('creme-fraiche-30', grams(120)) }),
  },
  {
    op: 'blend',
    name: 'Blend',
    group: 'Enrich',
    rows: [{ part: '', roles: PIECES, all: 'all pieces' }],
    knobs: [{ key: 'keep_share', label: 'kept whole', kind: 'percent', unit: '% of the pieces' }],
    fresh: () => ({ op: 'blend', ingredient: null, keep_share: 0 }),
  },
  {
    op: 'mend',
    name: 'Bring a split sauce together',
    group: 'Enrich',
    rows: [{ part: '', roles: ['cream', 'water', 'stock'] }],
    knobs: [],
    fresh: () => ({ op: 'mend', ...of('cream-35', grams(30)) }),
  },
  {
    op: 'correct',
    name: 'Judge and correct',
    group: 'Thicken',
    rows: [],
    knobs: [{ key: 'hold', label: 'Held back', kind: 'choice', options: holds }],
    fresh: () => ({ op: 'correct', hold: 'liquid', ingredient: 'milk-whole' }),
  },
  {
    op: 'reserve',
    name: 'Set aside',
    group: 'Keep',
    rows: [],
    knobs: [
      { key: 'share', label: 'of the pot', kind: 'percent', unit: '%', always: true },
      { key: 'purpose', label: 'Set aside', kind: 'choice', options: purposes },
    ],
    fresh: () => ({ op: 'reserve', share: 0.2, purpose: 'top' }),
  },
  {
    op: 'cool',
    name: 'Cool',
    group: 'Keep',
    rows: [],
    knobs: [{ ...celsius('to_c', 'down to'), always: true }, min()],
    fresh: () => ({ op: 'cool', to_c: 5, minutes: 90 }),
  },
  {
    op: 'hold',
    name: 'Hold hot',
    group: 'Keep',
    rows: [],
    knobs: [min(true), celsius('temperature_c', 'held at'), { key: 'covered', label: 'under film', kind: 'switch' }],
    fresh: () => ({ op: 'hold', minutes: 30, temperature_c: 65, covered: true }),
  },
  {
    op: 'reheat',
    name: 'Reheat',
    group: 'Keep',
    rows: [],
    knobs: [{ ...celsius('to_c', 'up to'), always: true }],
    fresh: () => ({ op: 'reheat', to_c: 85 }),
  },
]
const byOp = new Map(forms.map((form) => [form.op, form]))
/** `use` is no form of its own: it is made by picking another saved sauce. */
const useForm: StepForm = {
  op: 'use',
  name: 'Another sauce',
  group: 'Liquid',
  rows: [{ part: '', roles: [] }],
  knobs: [celsius('temperature_c', 'goes in at'), { key: 'ready', label: 'stands ready', kind: 'switch' }],
  fresh: () => ({ op: 'use' }),
}
export const formOf = (op: string): StepForm => byOp.get(op) ?? useForm

/** Buttons under the steps; all others are a menu away. */
export const common = ['roux', 'add', 'simmer', 'reduce', 'melt', 'season']
export const freshSalt = (): LooseStep => ({ op: 'season', ingredient: 'salt', amount: { to_salt_pct: 0.8 } })

export const menu = [...new Set(forms.map((form) => form.group))].map((group) => ({
  type: 'group',
  key: group,
  label: group,
  children: [
    ...forms.filter((form) => form.group === group).map((form) => ({ key: form.op, label: form.name })),
    ...(group === 'Liquid' ? [{ key: 'use', label: 'Another sauce…' }] : []),
    ...(group === 'Season' ? [{ key: 'salt', label: 'Salt to taste' }] : []),
  ],
}))

/** Whether a seasoning's amount is "salt up to so much" rather than a weight. */
export function isToSalt(amount: unknown): amount is { to_salt_pct: number | string } {
  return typeof amount === 'object' && amount !== null && 'to_salt_pct' in amount
}
