import { describe, expect, it } from 'vitest'
import openapi from '@/api/openapi.json'
import { common, formOf, forms, isToSalt, menu } from '@/parts/steps'

type JsonSchema = { properties?: Record<string, { const?: string }> }
const schemas = openapi.components.schemas as unknown as Record<string, JsonSchema>
/** Every step the core knows, by op, with its fields. */
const steps = new Map(
  Object.values(schemas)
    .filter((schema) => schema.properties?.op?.const)
    .map((schema) => [schema.properties!.op!.const!, Object.keys(schema.properties!)]),
)

describe('step forms', () => {
  it('has one for every step of the core, and none beside', () => {
    expect(steps.size).toBeGreaterThanOrEqual(27)
    expect([...forms.map((form) => form.op), 'use'].sort()).toEqual([...steps.keys()].sort())
  })
  it('names only fields the step has', () => {
    for (const form of forms) {
      const fields = steps.get(form.op)!
      for (const row of form.rows) expect(fields).toContain(row.part || (row.all ? 'ingredient' : 'amount'))
      for (const knob of form.knobs) expect(fields).toContain(knob.key)
      for (const field of Object.keys(form.fresh())) expect(fields).toContain(field)
    }
  })
  it('starts each step fresh, not shared', () => {
    const first = formOf('roux').fresh()
    first.fat.amount.value = 999
    expect(formOf('roux').fresh().fat.amount.value).toBe(60)
  })
  it('offers every step in the menu, the common ones as buttons', () => {
    const offered = menu.flatMap((group) => group.children.map((child) => child.key))
    expect(offered.sort()).toEqual([...forms.map((form) => form.op), 'use', 'salt'].sort())
    for (const op of common) expect(formOf(op).op).toBe(op)
  })
  it('tells salt up to a target from a weight, text included', () => {
    expect(isToSalt({ to_salt_pct: 0.9 })).toBe(true)
    expect(isToSalt({ value: 3, unit: 'g' })).toBe(false)
    expect(isToSalt('1 1/2 cups')).toBe(false)
    expect(isToSalt(null)).toBe(false)
  })
})
