import { describe, expect, it } from 'vitest'
import { pulled, sauceFields } from './dish'

const usual = () => 0.35
describe('an edge that is pulled', () => {
  it('makes a layer as much thicker, from the usual where nothing was said', () => {
    const doc = { sauces: [{ use: 'layers' }, { use: 'cap', per_ml: 0.4 }] }
    pulled(doc, 'sauces[0]', 2, usual)
    pulled(doc, 'sauces[1]', 0.5, usual)
    expect(doc.sauces).toEqual([
      { use: 'layers', per_ml: 0.7 },
      { use: 'cap', per_ml: 0.2 },
    ])
  })
  it('takes what is counted by the piece, the rest by weight, all solids of a band alike', () => {
    const doc = { solids: [{ grams: 100 }, { grams: 60, pieces: 3, piece_g: 20 }] }
    pulled(doc, 'solids', 1.5, usual)
    expect(doc.solids).toEqual([{ grams: 150 }, { grams: 60, pieces: 4.5, piece_g: 20 }])
  })
  it('strews more or less, by area where it goes by area', () => {
    const doc = { toppings: [{ g_per_cm2: 0.06 }, { grams: 8 }] }
    pulled(doc, 'toppings[0]', 2, usual)
    pulled(doc, 'toppings[1]', 0.5, usual)
    expect(doc.toppings).toEqual([{ g_per_cm2: 0.12 }, { grams: 4 }])
  })
  it('changes nothing for nonsense', () => {
    const doc = { sauces: [{ use: 'nap', per_ml: 55 }] }
    for (const ratio of [0, -1, NaN, Infinity]) pulled(doc, 'sauces[0]', ratio, usual)
    pulled(doc, 'lid', 2, usual)
    expect(doc).toEqual({ sauces: [{ use: 'nap', per_ml: 55 }] })
  })
})

describe('the fields of a sauce', () => {
  it('speak of millimetres where it goes by the surface', () => {
    const labels = (basis: string) =>
      sauceFields({ basis, per_ml: 0.4 } as never, [], [], []).map((field) => field.label)
    expect(labels('vessel-cm2')).toContain('mm thick')
    expect(labels('portion')).toContain('mL for each')
  })
})
