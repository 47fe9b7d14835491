// @vitest-environment happy-dom
/** Sauces inside sauces, how sure it is, and rows from a packet, on what the demo kitchen answers. */
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { grams, packOf, share } from '@/parts/format'
import { found, ingredientOption } from '@/parts/options'
import { clientOver, demo, demoServer, fresh, mounted, refused, wire, type Loose } from '@/testing'
import HowSure from './builder/HowSure.vue'
import InsidePot from './builder/InsidePot.vue'
import FromPacket from './larder/FromPacket.vue'
import FirstPots from './service/FirstPots.vue'
import Batch from './stove/Batch.vue'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
beforeEach(() => {
  fresh()
  wire.answer = demoServer
})
afterEach(() => {
  document.body.innerHTML = ''
  vi.unstubAllGlobals()
})
const pot = () => (demo('a sauce inside') as Schemas['Worked']).inside[0]!
const sure = () => demo('POST /api/work/sure') as Schemas['Sure']
/** Longer than what waits for a pause in typing. */
const paused = async () => {
  await new Promise((done) => setTimeout(done, 700))
  await flushPromises()
}

describe('a sauce inside a sauce', () => {
  it('is told with its pan, what it makes, and its steps once its step is chosen', async () => {
    const closed = await mounted(InsidePot, { pot: pot(), open: false, problemOf: () => null })
    expect(closed.text()).toContain(`First, in ${pot().pan}`)
    expect(closed.text()).toContain(grams(pot().made_g))
    expect(closed.text()).not.toContain(pot().cards[1]!.title)
    const { text } = await mounted(InsidePot, { pot: pot(), open: true, problemOf: () => null })
    for (const card of pot().cards) expect(text()).toContain(card.title)
  })
  it('has its amounts typed over where it stands', async () => {
    const { inside, field } = await mounted(InsidePot, { pot: pot(), open: true, problemOf: () => null })
    await field('Wheat flour, plain, amount').setValue('30 g')
    const [write] = inside.emitted('change')![0] as [(step: Loose) => void]
    const step: Loose = { op: 'use', sauce: { name: 'other', steps: [] } }
    write(step)
    expect(step.sauce.steps[0].flour.amount).toEqual({ value: '30 g', unit: 'g' })
    expect(step.sauce.steps).toHaveLength(pot().cards.length)
  })
  it('stands first in the service, in the pan a cook gives it', async () => {
    const first = {
      key: 'own-7/2',
      of: 'own-7',
      name: 'White sauce',
      pan: { name: 'saucepan 16' },
      made_g: 536,
      minutes: 16,
      batches: 2,
    }
    const plan = { first: [first], service: { pans: {} } }
    const { text, inside, press } = await mounted(FirstPots, {
      plan,
      of: 'own-7',
      pans: [{ value: '', label: 'as it comes' }],
    })
    expect(text()).toContain('2 × 536 g')
    await press('Cook it')
    expect(inside.emitted('cook')).toEqual([['own-7/2']])
    expect((await mounted(FirstPots, { plan, of: 'own-8', pans: [] })).inside.findAll('section')).toHaveLength(0)
  })
  it('is a tap away at the stove', async () => {
    const batch = demo('GET /api/stove/{batch_id}') as Schemas['BatchOut']
    const beside = [{ id: 77, name: 'White sauce', status: 'on', into: false }]
    wire.answer = (path, body, method) =>
      path === '/api/stove/{batch_id}' && method === 'GET'
        ? { status: 200, body: { ...batch, beside } }
        : demoServer(path, body, method)
    const { text, inside } = await mounted(Batch, { id: batch.id })
    expect(text()).toContain('Make first: White sauce')
    expect(inside.get('a.beside').attributes('href')).toBe('/stove/77')
  })
})

describe('how sure', () => {
  it('tells the chance, then what makes the doubt and what mends it', async () => {
    const { text, inside } = await mounted(HowSure, { sheet: { name: 'x', steps: [] } })
    expect(inside.find('.sure').exists()).toBe(false)
    await paused()
    expect(text()).toContain(`${Math.round(100 * sure().chance)} %`)
    await inside.get('button.plain').trigger('click')
    for (const doubt of sure().doubts) expect(text()).toContain(doubt.name)
    for (const mend of sure().mends) expect(text()).toContain(mend.do)
    const doable = sure().mends.find((mend) => mend.sheet)!
    await inside.get(`[aria-label="Do it: ${doable.do}"]`).trigger('click')
    expect(inside.emitted('take')![0]).toEqual([doable.sheet, [doable.do]])
  })
  it('says nothing of a sauce that is wrong or has no grade', async () => {
    wire.answer = (path, body, method) =>
      path === '/api/work/sure' ? refused('steps[0]') : demoServer(path, body, method)
    const { inside } = await mounted(HowSure, { sheet: { name: 'x', steps: [] } })
    await paused()
    expect(inside.find('.sure').exists()).toBe(false)
  })
})

describe('a row from a packet', () => {
  it('asks for what is printed and works out the rest', async () => {
    const { inside, field, text } = await mounted(FromPacket, { name: 'Ridge cheese', role: 'cheese' })
    for (const [label, value] of Object.entries({
      Fat: '31',
      Carbohydrate: '0',
      'of which sugars': '0',
      Protein: '27',
    }))
      await field(label).setValue(value)
    await paused()
    expect(wire.asked.some((one) => one.path === '/api/larder/from-label')).toBe(false)
    await field('Salt').setValue('1.5')
    await paused()
    const told = demo('POST /api/larder/from-label') as Schemas['FromLabel']
    expect(inside.emitted('row')).toEqual([[told.row]])
    expect(text()).toContain(told.assumed[0]!)
  })
})

describe('words', () => {
  it('finds what a shop calls it', () => {
    const rows = demo('GET /api/larder').ingredients as Schemas['IngredientOut'][]
    const finds = (typed: string) => rows.filter((row) => found(typed, ingredientOption(row))).map((row) => row.key)
    expect(finds('parmesan')).toContain('parmesan-style-hard')
    expect(finds('cheddar')).toEqual(['cheese-firm-mature', 'cheese-semi-hard'])
    expect(finds('moonlight')).toEqual([])
  })
  it('says shares and packs as a cook does', () => {
    expect([share({ share: 1 }), share({ share: 0.4 })]).toEqual(['all', '40 %'])
    expect([packOf(1000), packOf(500), packOf(751)]).toEqual(['1 L', '500 mL', '751 mL'])
  })
})
