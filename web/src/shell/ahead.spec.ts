/** What is looked up of a pot: between lines of the tables, after a look, and never surer by the clock alone. */
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { asLookedUp, at, lookedUp, type Ahead, type Moment } from './ahead'

const guess = (value: number, off = 1) => ({ value, low: value - off, high: value + off })
const moment = (in_min: number, left: number, off = 1): Moment => ({
  in_min,
  boils_in_min: 0,
  minutes_left: guess(left, off),
  mass_g: guess(500 - 30 * in_min, 10 * off),
  share_left: guess(1 - 0.06 * in_min, 0.01 * off),
  level_mm: guess(40 - 2 * in_min, off),
  viscosity_pa_s: guess(0.1 + 0.02 * in_min, 0.01 * off),
})
const ahead: Ahead = {
  by_itself: [moment(0, 10), moment(2, 8, 1.2), moment(10, 0, 3)],
  looks: [
    { what: 'gone', value: 0.5, moments: [moment(0, 4, 0.5), moment(2, 6, 0.5), moment(10, 3, 0.5)] },
    { what: 'level', value: 20, moments: [moment(0, 2, 0.5), moment(2, 3, 0.5), moment(10, 2, 0.5)] },
    { what: 'level', value: 40, moments: [moment(0, 12, 0.5), moment(2, 13, 0.5), moment(10, 12, 0.5)] },
  ],
}
const left = (min: number, look: Parameters<typeof lookedUp>[2] = null) => lookedUp(ahead, min, look).minutes_left!

describe('what is ahead', () => {
  it('counts down between the lines of the table, and stays at its ends', () => {
    expect(left(0).value).toBe(10)
    expect(left(1).value).toBeCloseTo(9)
    expect(left(6).value).toBeCloseTo(4)
    expect(left(99).value).toBe(0)
    expect(at(ahead.by_itself, -1).in_min).toBe(0)
  })
  it('takes a look by looking it up, between two values too', () => {
    expect(left(0, { what: 'gone', value: 0.5, min: 0 }).value).toBe(4)
    expect(left(2, { what: 'level', value: 30, min: 2 }).value).toBeCloseTo(8)
    expect(left(2, { what: 'level', value: 90, min: 2 }).value).toBeCloseTo(13)
  })
  it('goes on by the clock after it, never surer than it was', () => {
    const look = { what: 'gone', value: 0.5, min: 2 }
    const [then, later] = [left(2, look), left(6, look)]
    expect(later.value).toBeCloseTo(then.value - 4)
    expect(later.high - later.low).toBeGreaterThanOrEqual(then.high - then.low)
    expect(left(30, look).value).toBe(0)
  })
  it('knows no look that is in no table: the pot goes on by itself', () => {
    expect(left(2, { what: 'scale', value: 1500, min: 1 }).value).toBe(left(2).value)
  })
  it('moves what the scale shows with the weight, where the pan was weighed', () => {
    const told = (scale_g: number | null) => ({ ...moment(0, 10), scale_g }) as unknown as Schemas['Watched']
    expect(asLookedUp(told(1300), moment(2, 8)).scale_g).toBe(1240)
    expect(asLookedUp(told(null), moment(2, 8)).scale_g).toBeNull()
  })
})
