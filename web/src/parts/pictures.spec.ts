import { describe, expect, it } from 'vitest'
import { clock, secondsLeft } from '@/shell/timer'
import { fileName } from './file'
import { amount, bulk, grams, minutes } from './format'
import { halfWidth, slice } from './pot'
import { along, bands } from './ribbon'
import { spoonPicture } from './spoon'

// 80 g against 84 g flour in a litre of milk, as the core has it: 5 % more flour.
const was = { viscosity: 1.4637, film: 1.554 }
const now = { viscosity: 1.7443, film: 1.6965 }

describe('the ribbon', () => {
  it('is logarithmic and moves with 5 % more flour', () => {
    expect(along(1) - along(0.1)).toBeCloseTo(along(10) - along(1), 9)
    expect(along(now.viscosity) - along(was.viscosity)).toBeGreaterThan(0.015)
    expect(along(0)).toBe(0)
    expect(along(1e9)).toBe(1)
  })
  it('has bands that meet', () => {
    const made = bands([
      { key: 'pouring', name: 'pouring', low_pa_s: 0.03, high_pa_s: 0.12 },
      { key: 'panade', name: 'panade', low_pa_s: 0.12, high_pa_s: null },
    ])
    expect(made.map((band) => band.from)).toEqual([0, along(0.03), along(0.12)])
    expect(made.at(-1)?.to).toBe(1)
  })
})

describe('the spoon', () => {
  it('moves with 5 % more flour', () => {
    const a = spoonPicture(was.viscosity, was.film)
    const b = spoonPicture(now.viscosity, now.film)
    expect(b.film).toBeGreaterThan(a.film)
    expect(b.line).toBeGreaterThan(a.line)
    expect(b.drip).toBeLessThan(a.drip)
    expect(b.cover).toBeGreaterThan(a.cover)
  })
  it('tells the grades apart at a glance: each differs from the next in outline, drip or line by a tenth of the spoon', () => {
    const grades = [0.06, 0.22, 0.69, 2.2, 7.7, 30].map((eta) => spoonPicture(eta, 1.285 * Math.sqrt(eta)))
    grades.slice(1).forEach((thicker, n) => {
      const thinner = grades[n]!
      const apart = [
        thicker.film - thinner.film,
        thinner.drip - thicker.drip,
        20 * (thicker.open - thinner.open),
        thicker.peak - thinner.peak,
      ]
      expect(apart.reduce((sum, by) => sum + by)).toBeGreaterThan(10)
    })
  })
  it('has no jumps from water to panade', () => {
    let last = spoonPicture(0.005, 0.09)
    for (let viscosity = 0.005; viscosity < 60; viscosity *= 1.05) {
      const next = spoonPicture(viscosity, 1.285 * Math.sqrt(viscosity))
      for (const key of ['film', 'drip', 'line'] as const) {
        expect(Math.abs(next[key] - last[key])).toBeLessThan(1.2)
      }
      last = next
    }
  })
})

describe('the pot', () => {
  const side = (...points: [number, number][]) => points.map(([half_mm, height_mm]) => ({ half_mm, height_mm }))
  const sloped = side([90, 0], [120, 80])
  it('is as wide as its outline, straight between its points', () => {
    expect(halfWidth(sloped, 0)).toBe(90)
    expect(halfWidth(sloped, 40)).toBe(105)
    expect(halfWidth(sloped, 80)).toBe(120)
    expect(halfWidth(sloped, 90)).toBe(120)
  })
  it('is drawn along every point between two heights', () => {
    const bowl = side([0, 0], [80, 20], [110, 60], [120, 100])
    expect(slice(bowl, 10, 60)).toBe('M40.00,90.00L80.00,80.00L110.00,40.00L-110.00,40.00L-80.00,80.00L-40.00,90.00Z')
    expect(slice(sloped, 0, 30)).not.toBe(slice(sloped, 0, 30.5))
  })
})

describe('words for numbers', () => {
  it('writes spoons in fractions and weights by size', () => {
    expect(amount({ value: 1.5, unit: 'cup' })).toBe('1 ½ cups')
    expect(amount({ value: 0.25, unit: 'tsp' })).toBe('¼ tsp')
    expect(amount({ value: 0.84, unit: 'L' })).toBe('0.84 L')
    expect(amount({ value: 0.9147, unit: 'cup' })).toBe('⅞ cup + 2 tsp')
    expect(amount({ value: 2.744, unit: 'tbsp' })).toBe('2 ¾ tbsp')
    expect(amount({ value: 0.1, unit: 'cup' })).toBe('1 ½ tbsp + ¼ tsp')
    expect(amount({ value: 0.02, unit: 'cup' })).toBe('1 tsp')
    expect(grams(2386)).toBe('2.39 kg')
    expect(grams(465.4)).toBe('465 g')
    expect(minutes(99)).toBe('1 h 39 min')
  })
  it('counts down and past the end', () => {
    const start = '2026-01-01T10:00:00Z'
    const at = Date.parse(start)
    expect(secondsLeft(null, 60, at)).toBeNull()
    expect(clock(secondsLeft(start, 120, at + 15_000)!)).toBe('1:45')
    expect(clock(secondsLeft(start, 120, at + 132_000)!)).toBe('+0:12')
  })
})

describe('amounts measured by hand', () => {
  const knobs = { value: 30, unit: 'g', measure: { name: 'knob', count: 2.5 } }
  it('are spoken by their measure, in fractions and plurals', () => {
    expect(amount(knobs)).toBe('2 ½ knobs')
    expect(amount({ ...knobs, measure: { name: 'pinch', count: 1.25 } })).toBe('1 ¼ pinches')
    expect(amount({ ...knobs, measure: { name: 'bay leaf', count: 2 } })).toBe('2 bay leaves')
    expect(amount({ value: 350, unit: 'g', measure: { name: 'g', count: 350 } })).toBe('about 350 g')
    expect(amount({ ...knobs, measure: { name: 'scooped cup', count: 1 } })).toBe('1 scooped cup')
    expect(amount({ value: 250, unit: 'g' })).toBe('250 g')
  })
  it('come in kilos and litres only where they are read, not edited', () => {
    expect(bulk({ value: 4520, unit: 'g' })).toBe('4.52 kg')
    expect(bulk({ value: 3830, unit: 'mL' })).toBe('3.83 L')
    expect(bulk({ value: 999, unit: 'g' })).toBe('999 g')
    expect(bulk(knobs)).toBe('2 ½ knobs')
    expect(amount({ value: 4520, unit: 'g' })).toBe('4520 g')
  })
})

describe('file names', () => {
  it('are plain and never empty', () => {
    expect(fileName('Cheese sauce, mild!', 'md')).toBe('cheese-sauce-mild.md')
    expect(fileName('Velouté', 'json')).toBe('velouté.json')
    expect(fileName('???', 'json')).toBe('sauce.json')
  })
})
