/** A row of the larder as a form: its figures by group, in what they are given, and how a new one starts. */
export interface Figure {
  key: string
  label: string
  unit: string
}

export const blank: Record<string, string> = {
  key: '',
  name: '',
  role: 'solid',
  water: '100',
  density: '1',
  cup_density: '1',
  origin: 'label',
  spread_pct: '10',
  form: '',
}

export const groups: { name: string; fields: Figure[] }[] = [
  {
    name: 'Bought and kept',
    fields: [
      { key: 'price_per_kg', label: 'Price', unit: '/kg' },
      { key: 'pack_g', label: 'Pack', unit: 'g' },
      { key: 'usable_pct', label: 'Left after trimming', unit: '%' },
      { key: 'drained_pct', label: 'Left once drained', unit: '%' },
      { key: 'density', label: 'Density', unit: 'g/mL' },
      { key: 'cup_density', label: 'In spoon and cup', unit: 'g/mL' },
      { key: 'piece_g', label: 'One piece', unit: 'g' },
      { key: 'strength', label: 'Strength beside its kin', unit: '×' },
      { key: 'keeps_days', label: 'Once made, keeps', unit: 'days' },
    ],
  },
  {
    name: 'In 100 g',
    fields: [
      { key: 'water', label: 'Water', unit: 'g' },
      { key: 'fat', label: 'Fat', unit: 'g' },
      { key: 'salt', label: 'Salt', unit: 'g' },
      { key: 'flour', label: 'Flour, starch', unit: 'g' },
      { key: 'power', label: 'Thickens, × wheat', unit: '' },
      { key: 'thickening_protein', label: 'Casein, gelatin', unit: 'g' },
      { key: 'yolk_protein', label: 'Yolk protein', unit: 'g' },
      { key: 'solids', label: 'Dissolved: sugars, ash', unit: 'g' },
      { key: 'sugar', label: 'Of it sugar', unit: 'g' },
      { key: 'acid', label: 'Acid, as citric', unit: 'g' },
      { key: 'alcohol', label: 'Alcohol', unit: 'g' },
      { key: 'insoluble', label: 'Fibre and the rest', unit: 'g' },
    ],
  },
  {
    name: 'As it cooks',
    fields: [
      { key: 'leak_pct', label: 'Juice it gives', unit: '%' },
      { key: 'falls_pct', label: 'Falls apart', unit: '%' },
      { key: 'renders_pct', label: 'Fat that runs out', unit: '%' },
      { key: 'salt_min', label: 'Gives its salt within about', unit: 'min' },
      { key: 'melts_c', label: 'Melts at', unit: '°C' },
      { key: 'strings_c', label: 'Strings from', unit: '°C' },
      { key: 'smokes_c', label: 'Smokes from', unit: '°C' },
      { key: 'thins_pct', label: 'A starch a boil thins by', unit: '%' },
    ],
  },
  {
    name: 'Body: what a purée or a gel thickens like',
    fields: [
      { key: 'body', label: 'As flour, in 100 g', unit: 'g' },
      { key: 'body_spread_pct', label: 'How far it differs', unit: '± %' },
      { key: 'boils_away_pct', label: 'A boil takes of it', unit: '%' },
    ],
  },
]
