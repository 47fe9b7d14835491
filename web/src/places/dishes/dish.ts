/** The dish being edited: a document of its own, and the fields its parts are entered in. */
import type { SelectOption } from 'naive-ui'
import { api, ask, type Schemas } from '@/api/client'
import type { RowField } from '@/parts/RowFields.vue'
import { useDocument, type Loose, type Stored } from '@/shell/document'

/** Empty fields are left out, so that the core's defaults count; the rest stays as typed for it to judge. */
function written(document: Loose): Loose {
  const full = JSON.stringify(document, (_, value) => (value === '' || value === null ? undefined : value))
  return { ...JSON.parse(full), name: document.name }
}
const storedOf = (found: Schemas['DishOut']): Stored => ({
  id: found.id,
  base: found.revision,
  document: found.document,
})

export function useDish() {
  const at = (id: number) => ({ params: { path: { dish_id: id } } })
  return useDocument<Schemas['DishRead'], Schemas['KeptTaken']>({
    name: 'dish',
    work: (typed) => ask(api.POST('/api/dishes/read', { body: { document: written(typed), revision: 0 } })),
    documentOf: (found) => found.dish,
    load: async (id) => storedOf(await ask(api.GET('/api/dishes/{dish_id}', at(id)))),
    write: async (typed, id, revision) => {
      const body = { document: typed, revision }
      return storedOf(
        id === null
          ? await ask(api.POST('/api/dishes', { body }))
          : await ask(api.PUT('/api/dishes/{dish_id}', { ...at(id), body })),
      )
    },
    theirs: (body) => ({ base: body.revision, document: body.document }),
  })
}

export type DishDraft = ReturnType<typeof useDish>
export type Seen = Schemas['DishSeen']

/** A dish begun from nothing. */
export const NEW_DISH: Loose = { format: 'kestrel-fog/dish', version: 1, name: 'New dish', sauces: [], solids: [] }

const round3 = (value: number) => Number(value.toPrecision(3))
/** The part pulled to `ratio` times what it was: its amount in the document follows. */
export function pulled(doc: Loose, part: string, ratio: number, usual: (use: string) => number): void {
  const at = /^(sauces|solids|toppings)(?:\[(\d+)\])?$/.exec(part)
  if (!at || !Number.isFinite(ratio) || ratio <= 0) return
  const [, list, number] = at
  if (list === 'sauces') {
    const used = doc.sauces[Number(number)]
    used.per_ml = round3((Number(used.per_ml) || usual(used.use)) * ratio)
  } else if (list === 'toppings') {
    const row = doc.toppings[Number(number)]
    const field = row.g_per_cm2 ? 'g_per_cm2' : 'grams'
    row[field] = round3(Number(row[field]) * ratio)
  } else {
    for (const row of number === undefined ? doc.solids : [doc.solids[Number(number)]]) {
      const field = row.pieces && row.piece_g ? 'pieces' : 'grams'
      row[field] = round3(Number(row[field]) * ratio)
    }
  }
}

const eachLabels: Record<string, string> = {
  piece: 'pieces a portion',
  'solids-g': 'g a portion',
  'pasta-100g': 'g dry a portion',
  'filling-100g': 'g filling a portion',
  portion: 'times a portion',
}
const only = (values: Record<string, string>): SelectOption[] =>
  Object.entries(values).map(([value, label]) => ({ value, label }))

/** A sauce in the dish; how much of it is counted as its use counts. */
export function sauceFields(
  use: Schemas['Catalogue']['uses'][number] | undefined,
  sauces: SelectOption[],
  uses: SelectOption[],
  grades: SelectOption[],
): RowField[] {
  const byVessel = use?.basis === 'vessel-cm2'
  return [
    { key: 'sauce', label: 'sauce', name: 'Sauce', options: sauces, filterable: true },
    { key: 'use', label: 'used', name: 'Use', options: uses },
    byVessel
      ? { key: 'layers', label: 'layers', name: 'Layers', usual: '1' }
      : { key: 'each', label: eachLabels[use?.basis ?? 'portion'] ?? '', name: 'Each', usual: 'usual' },
    byVessel
      ? { key: 'mm', label: 'mm thick', name: 'Thick', usual: String(10 * (use?.per_ml ?? 0)) }
      : { key: 'per_ml', label: 'mL for each', name: 'mL', usual: String(use?.per_ml ?? '') },
    { key: 'kept_back_pct', label: 'kept back, %', name: 'Kept back', usual: '0' },
    { key: 'salt_pct', label: 'salted to, %', name: 'Salted to', usual: 'as it is' },
    {
      key: 'grade',
      label: 'how thick there',
      name: 'Grade',
      options: [{ value: '', label: 'as the sauce is' }, { value: 'liquid', label: 'liquid' }, ...grades],
      usual: '',
    },
  ]
}
export const solidFields = (ingredients: SelectOption[], ways: Record<string, string>): RowField[] => [
  { key: 'ingredient', label: 'what', name: 'Solid', options: ingredients, filterable: true },
  { key: 'grams', label: 'g a portion', name: 'Grams' },
  { key: 'pieces', label: 'or pieces', name: 'Pieces' },
  { key: 'piece_g', label: 'g each', name: 'Grams each' },
  { key: 'counted', label: 'called', name: 'Counted in', words: true, usual: 'slice, fillet…' },
  {
    key: 'state',
    label: 'weighed',
    name: 'State',
    options: only({ drained: 'cooked and drained', dry: 'dry: it drinks' }),
    usual: 'drained',
  },
  { key: 'way', label: 'how it is cooked', name: 'Way', options: only({ '': 'as usual', ...ways }), usual: '' },
]
export const vesselFields = (shape: unknown): RowField[] => [
  { key: 'name', label: 'name', name: 'Vessel name', words: true },
  {
    key: 'shape',
    label: 'shape',
    name: 'Vessel shape',
    options: only({
      tray: 'tray',
      dish: 'small dish',
      shell: 'shell',
      bowl: 'bowl',
      straight: 'straight',
      sloped: 'sloped',
    }),
  },
  { key: 'diameter_cm', label: shape === 'tray' ? 'long, cm' : 'across, cm', name: 'Vessel across' },
  ...(shape === 'tray' ? [{ key: 'width_cm', label: 'wide, cm', name: 'Vessel wide' }] : []),
  { key: 'depth_cm', label: 'deep, cm', name: 'Vessel deep' },
  { key: 'holds_g', label: 'or holds, g water', name: 'Vessel holds' },
  { key: 'portions', label: 'portions in one', name: 'Vessel portions' },
]
export const toppingFields = (ingredients: SelectOption[]): RowField[] => [
  { key: 'ingredient', label: 'over the top', name: 'Topping', options: ingredients, filterable: true },
  { key: 'g_per_cm2', label: 'g/cm²', name: 'Topping by area' },
  { key: 'grams', label: 'or g a portion', name: 'Topping grams' },
  {
    key: 'place',
    label: 'where',
    name: 'Topping where',
    options: only({ top: 'over the top', coating: 'all around' }),
    usual: 'top',
  },
]
export const roundFields: RowField[] = [
  { key: 'what', label: 'in rounds', name: 'Round', words: true },
  { key: 'each', label: 'a portion', name: 'Pieces' },
  { key: 'piece_cm2', label: 'cm² a piece', name: 'Piece' },
  { key: 'room_cm2', label: 'cm² of pan', name: 'Room' },
  { key: 'fill_pct', label: 'of it covered, %', name: 'Covered', usual: '60' },
  { key: 'minutes', label: 'min a round', name: 'Minutes' },
  { key: 'between_minutes', label: 'min between', name: 'Between', usual: '1' },
]
export const plateFields: RowField[] = [
  {
    key: 'finish',
    label: 'finish',
    name: 'Finish',
    options: only({
      none: 'nothing more',
      grill: 'under the grill',
      oven: 'in the oven',
      torch: 'torch, for colour',
      lid: 'under a lid',
    }),
    usual: 'none',
  },
  { key: 'finish_minutes', label: 'min', name: 'Finish minutes' },
  { key: 'oven_c', label: 'oven', name: 'Oven at', usual: '180', warm: true },
  {
    key: 'oven',
    label: 'oven',
    name: 'Kind of oven',
    options: only({ still: 'still', fan: 'with a fan' }),
    usual: 'still',
  },
  {
    key: 'filled',
    label: 'filled',
    name: 'Filled',
    options: only({ hot: 'hot from the pot', cold: 'cold from the fridge' }),
    usual: 'hot',
  },
  { key: 'pasta_water_salt_pct', label: 'pasta water, % salt', name: 'Pasta water', usual: '1' },
  { key: 'plate_cm', label: 'plate, cm', name: 'Plate wide', usual: '27' },
  { key: 'plate_c', label: 'plate', name: 'Plate', usual: '60', warm: true },
  { key: 'plate_g', label: 'it weighs, g', name: 'Plate weighs', usual: '400' },
  { key: 'food_c', label: 'food', name: 'Food at', usual: '65', warm: true },
  { key: 'margin_pct', label: 'margin, %', name: 'Margin', usual: '5' },
]
