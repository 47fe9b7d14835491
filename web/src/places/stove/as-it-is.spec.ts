// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { clientOver, demo, demoServer, fresh, mounted, wire } from '@/testing'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import AfterStep from './AfterStep.vue'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
beforeEach(() => {
  fresh()
  wire.answer = demoServer
})
afterEach(() => {
  document.body.innerHTML = ''
})

/** A pot of the demo's, the state after its step changed. */
const potWith = (change: Partial<Schemas['Figures']>) => {
  const batch = structuredClone(demo('GET /api/stove/{batch_id}')) as Schemas['BatchOut']
  const step = batch.plan.states.findIndex((state) => state.grade)
  const state = { ...batch.plan.states[step]!, ...change }
  batch.plan.states[step] = state
  if (batch.followed) batch.followed.states[step] = state
  return { batch, step, card: batch.plan.cards[step]!, state }
}
const liquid = {
  cooked_out: false,
  grade: 'binding',
  grade_now: 'liquid',
  viscosity_now_pa_s: 0.002,
  looks_now: 'runs off like milk; the spoon shows through',
  now: 'liquid now; binding once it has boiled',
}

describe('after a step', () => {
  it('shows the pot as it is until its starch has boiled, and says what it will be', async () => {
    const { batch, step, card } = potWith(liquid)
    const { inside, text } = await mounted(AfterStep, { batch, step, card, now: true })
    expect(inside.get('.grade').text()).toBe('liquid')
    expect(text()).toContain('liquid now; binding once it has boiled')
    expect(inside.find('.as-it-is').exists()).toBe(true)
  })
  it('shows what it comes to once that is so', async () => {
    const { batch, step, card } = potWith({ ...liquid, cooked_out: true, now: null })
    const { inside } = await mounted(AfterStep, { batch, step, card, now: true })
    expect(inside.get('.grade').text()).toBe('binding')
    expect(inside.find('.as-it-is').exists()).toBe(false)
  })
  it('reads a pot of before, which says nothing of it', async () => {
    const { batch, step, card, state } = potWith({ grade: 'nappe' })
    for (const key of ['cooked_out', 'grade_now', 'now'] as const) delete (state as Partial<Schemas['Figures']>)[key]
    const { inside } = await mounted(AfterStep, { batch, step, card, now: true })
    expect(inside.get('.grade').text()).toBe('nappe')
  })
})

describe('the ribbon', () => {
  it('has a ring where the pot is now, and says so', async () => {
    const { inside } = await mounted(ThicknessRibbon, { viscosity: 2, now: 0.05 })
    expect(inside.findAll('circle')).toHaveLength(1)
    expect(inside.get('svg').attributes('aria-label')).toContain('as it is pouring')
  })
  it('has none where that is not told', async () => {
    const { inside } = await mounted(ThicknessRibbon, { viscosity: 2, now: null })
    expect(inside.findAll('circle')).toHaveLength(0)
  })
})
