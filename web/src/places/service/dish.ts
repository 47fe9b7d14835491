/** The dish being edited: a document of its own, and the fields it is entered in. */
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
  return useDocument<Schemas['Dish'], Schemas['KeptTaken']>({
    name: 'dish',
    work: (typed) => ask(api.POST('/api/dishes/read', { body: { document: written(typed), revision: 0 } })),
    documentOf: (found) => found,
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
    { key: 'per_ml', label: 'mL for each', name: 'mL', usual: String(use?.per_ml ?? '') },
    { key: 'kept_back_pct', label: 'kept back, %', name: 'Kept back', usual: '0' },
    {
      key: 'grade',
      label: 'how thick there',
      name: 'Grade',
      options: [{ value: '', label: 'as the sauce is' }, ...grades],
      usual: '',
    },
  ]
}
export const solidFields = (ingredients: SelectOption[]): RowField[] => [
  { key: 'ingredient', label: 'what', name: 'Solid', options: ingredients, filterable: true },
  { key: 'grams', label: 'g', name: 'Grams' },
  {
    key: 'state',
    label: 'weighed',
    name: 'State',
    options: only({ drained: 'cooked and drained', dry: 'dry: it drinks' }),
    usual: 'drained',
  },
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
  { key: 'portions', label: 'portions in one', name: 'Vessel portions' },
]
export const toppingFields = (ingredients: SelectOption[]): RowField[] => [
  { key: 'ingredient', label: 'over the top', name: 'Topping', options: ingredients, filterable: true },
  { key: 'g_per_cm2', label: 'g/cm²', name: 'Topping by area' },
  { key: 'grams', label: 'or g a portion', name: 'Topping grams' },
]
export const roundFields: RowField[] = [
  { key: 'what', label: 'in rounds', name: 'Round', words: true },
  { key: 'each', label: 'a portion', name: 'Pieces' },
  { key: 'piece_cm2', label: 'cm² a piece', name: 'Piece' },
  { key: 'room_cm2', label: 'cm² of pan', name: 'Room' },
  { key: 'minutes', label: 'min a round', name: 'Minutes' },
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
  { key: 'oven_c', label: 'oven, °C', name: 'Oven at', usual: '180' },
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
  { key: 'plate_c', label: 'plate, °C', name: 'Plate', usual: '60' },
  { key: 'plate_g', label: 'it weighs, g', name: 'Plate weighs', usual: '400' },
  { key: 'food_c', label: 'food, °C', name: 'Food at', usual: '65' },
  { key: 'margin_pct', label: 'margin, %', name: 'Margin', usual: '5' },
]
