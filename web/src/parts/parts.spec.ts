// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { h, reactive } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { clientOver, demo, demoServer, fresh, mounted, wire } from '@/testing'
import AmountField from './AmountField.vue'
import ChoiceField from './ChoiceField.vue'
import FactList from './FactList.vue'
import FixIt from './FixIt.vue'
import { bulk, grams, told } from './format'
import { goBy, shownDegrees, USUAL } from './ways'
import LogPlot from './LogPlot.vue'
import NumberField from './NumberField.vue'
import PotView from './PotView.vue'
import ProblemLine from './ProblemLine.vue'
import RowFields from './RowFields.vue'
import SpoonBack from './SpoonBack.vue'
import SpoonPicker from './SpoonPicker.vue'
import TextField from './TextField.vue'
import ThicknessRibbon from './ThicknessRibbon.vue'
import WayDown from './WayDown.vue'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
beforeEach(() => {
  fresh()
  wire.answer = demoServer
})
afterEach(() => {
  document.body.innerHTML = ''
  vi.unstubAllGlobals()
})

const wrong = { field: 'x', code: 'x', message: '“so” is not a number', remedy: 'Write digits' }
const worked = () => demo('POST /api/work/check') as Schemas['Worked']

describe('fields', () => {
  it('sends an amount as typed, with the unit a bare number is of', async () => {
    const { inside, field } = await mounted(AmountField, { amount: { value: 80, unit: 'g' }, label: 'Butter, amount' })
    expect(field('Butter, amount').element.value).toBe('80 g')
    await field('Butter, amount').setValue('90')
    await field('Butter, amount').setValue('1/2 cup')
    expect(inside.emitted('change')).toEqual([[{ value: '90', unit: 'g' }], [{ value: '1/2 cup', unit: 'g' }]])
  })
  it('shows an amount that was refused as it was typed, after a reload too', async () => {
    const { inside, field } = await mounted(AmountField, { amount: 'lots', label: 'Butter, amount', problem: wrong })
    expect(field('Butter, amount').element.value).toBe('lots')
    await field('Butter, amount').setValue('80 g')
    expect(inside.emitted('change')).toEqual([['80 g']])
  })
  it('leaves what is typed alone until the field is left', async () => {
    const { field } = await mounted(NumberField, { value: 0.5, label: 'salt', unit: 'g', onChange: () => undefined })
    await field('salt').setValue('0.')
    expect(field('salt').element.value).toBe('0.')
    await field('salt').trigger('blur')
    expect(field('salt').element.value).toBe('0.5')
  })
  it('keeps what was refused, and says what would be right', async () => {
    const { field, text } = await mounted(TextField, { value: 'so', label: 'Spread', numeric: true, problem: wrong })
    expect(field('Spread').element.value).toBe('so')
    expect(field('Spread').attributes('aria-invalid')).toBe('true')
    expect(text()).toContain('“so” is not a number. Write digits.')
  })
  it('is empty again once a form has taken what was typed with Enter', async () => {
    const entry = reactive({ value: '' })
    const form = { render: () => h(TextField, { label: 'Holds', ...entry, onChange: (text) => (entry.value = text) }) }
    const { field } = await mounted(form)
    await field('Holds').setValue('250')
    await field('Holds').trigger('keydown', { key: 'Enter' })
    entry.value = ''
    await flushPromises()
    expect(field('Holds').element.value).toBe('')
  })
  it('offers choices by name', async () => {
    const options = [{ value: 'dry', label: 'dry: it drinks' }]
    const { text } = await mounted(ChoiceField, { value: 'dry', label: 'weighed', options })
    expect(text()).toContain('weigheddry: it drinks')
  })
  it('makes a line of fields, numbered, to change and to take out', async () => {
    const fields = [
      { key: 'grams', label: 'g', name: 'Grams', usual: '100' },
      { key: 'what', label: 'what', name: 'What', words: true },
    ]
    const { inside, field } = await mounted(RowFields, { fields, row: { what: 'leek' }, number: 2, remove: 'Take out' })
    expect(field('Grams 2').attributes('placeholder')).toBe('100')
    expect(field('What 2').element.value).toBe('leek')
    await field('Grams 2').setValue('40')
    await inside.get('[aria-label="Take out 2"]').trigger('click')
    expect(inside.emitted('change')).toEqual([['grams', '40']])
    expect(inside.emitted('remove')).toHaveLength(1)
  })
  it('has no line where nothing is wrong', async () => {
    expect((await mounted(ProblemLine, { problem: null })).text()).toBe('')
    expect((await mounted(ProblemLine, { problem: wrong, subject: 'The name' })).text()).toContain('The name “so”')
  })
  it('leaves figures out that are not there', async () => {
    const { inside } = await mounted(FactList, { facts: { Salt: '0.80 %', 'Finish in': null } })
    expect(inside.findAll('dt').map((dt) => dt.text())).toEqual(['Salt'])
  })
})

describe('a kitchen of other ways', () => {
  const other = () => void goBy({ ...USUAL, temperature: 'F', measures: 'us', decimals: ',' })
  const there = async (part: unknown, props: object) => {
    const { page } = await mounted(part as never, props)
    other() // signing in has set the demo kitchen's
    await flushPromises()
    return page
  }
  beforeEach(other)
  afterEach(() => void goBy(null))

  it('shows degrees as it reads them, typed or not, and sends Celsius', async () => {
    const fields = [{ key: 'oven_c', label: 'oven', name: 'Oven at', usual: '180', warm: true }]
    const onChange = vi.fn()
    const row = await there(RowFields, { fields, row: { oven_c: '150' }, onChange })
    expect(row.text()).toContain('oven, °F')
    expect(row.find<HTMLInputElement>('input').element.value).toBe('302')
    await row.find('input').setValue('350')
    expect(onChange).toHaveBeenLastCalledWith('oven_c', '176.67')
    const empty = await there(RowFields, { fields, row: {} })
    expect(empty.find('input').attributes('placeholder')).toBe('356')
    const at = await there(NumberField, { label: 'at', unit: '°C', value: '60' })
    expect(at.find<HTMLInputElement>('input').element.value).toBe('140')
  })
  it('leaves what is no number as it was typed', () => {
    expect([shownDegrees('hot'), shownDegrees(''), shownDegrees(undefined)]).toEqual(['hot', '', undefined])
  })
  it('tells its own measure first and keeps the metric one', () => {
    expect(told({ value: 840, unit: 'mL' })).toBe('3 ½ cups (840 mL)')
    expect(told({ value: 2, unit: 'tbsp' })).toBe('2 tbsp')
    expect(told({ value: 4, unit: 'g' })).toBe('4 g')
    expect(bulk({ value: 1200, unit: 'g' })).toBe('2,65 lb (1,20 kg)')
  })
})

describe('pictures', () => {
  it('marks the target and how sure it is on the ribbon', async () => {
    const { viscosity_pa_s, viscosity_low_pa_s, viscosity_high_pa_s } = worked().final
    const props = { viscosity: viscosity_pa_s, low: viscosity_low_pa_s, high: viscosity_high_pa_s, target: 'nappe' }
    const { inside } = await mounted(ThicknessRibbon, props)
    expect(inside.html()).toContain('var(--butter-wash)')
    expect(inside.findAll('rect').length).toBeGreaterThan(worked().steps.length > 0 ? 5 : 0)
  })
  it('hangs a film from the spoon where there is one', async () => {
    const coated = await mounted(SpoonBack, { viscosity: 1.2, filmMm: 1.4 })
    expect(coated.inside.html()).toContain('var(--sauce)')
    const bare = await mounted(SpoonBack, { viscosity: null, filmMm: null, looks: 'a paste' })
    expect(bare.inside.html()).not.toContain('var(--sauce)')
  })
  it('offers a spoon for every grade and gives back what it stands for', async () => {
    const { inside } = await mounted(SpoonPicker, { modelValue: null, label: 'How thick' })
    const grades = demo('GET /api/larder').grades as Schemas['Catalogue']['grades']
    const spoons = inside.findAll('[role=radio]')
    expect(spoons).toHaveLength(grades.length)
    await spoons[1]!.trigger('click')
    expect(inside.emitted('update:modelValue')).toEqual([[grades[1]!.target_pa_s]])
  })
  it('fills the pot to its level, layer by layer', async () => {
    const { pan, final } = worked()
    const { inside } = await mounted(PotView, { pan, state: final })
    for (const layer of ['in-flour', 'in-water', 'in-fat']) expect(inside.html()).toContain(`var(--${layer})`)
    const empty = await mounted(PotView, { pan, state: null })
    expect(empty.inside.html()).not.toContain('in-water')
  })
  it('plots thickness over heat with the words of its grades', async () => {
    const points = [
      { x: 20, viscosity: 3, low: 2, high: 4 },
      { x: 80, viscosity: 0.8, low: 0.6, high: 1 },
    ]
    const props = { points, low: 20, high: 80, ticks: [{ x: 60, text: '60 °C' }], label: 'As it cools' }
    const { inside, text } = await mounted(LogPlot, props)
    expect(text()).toContain('60 °C')
    expect(inside.findAll('path, polyline').length).toBeGreaterThan(0)
  })
  it('tells every mark on the way down, and takes a grade for the stop', async () => {
    const mark = {
      key: 'nappe',
      words: 'coats a spoon',
      mass_g: 640,
      dip_mm: 31,
      minutes: 9,
      salt_pct: 0.7,
      share: 0.8,
    }
    const along = { step: 1, start_g: 800, start_minutes: 0, marks: [mark], pan: null, lines: [] }
    const { text } = await mounted(WayDown, { along, takes: true })
    expect(text()).toContain(grams(640).replace(/\s+/g, ' '))
  })
})

describe('mending', () => {
  it('says what helps with what is wrong, and hands it over', async () => {
    const { inside, text, press } = await mounted(FixIt, { sheet: worked().sheet, at: 2, take: 'Put it in' })
    await flushPromises()
    const mended = demo('POST /api/work/fix') as Schemas['Mended']
    const open = mended.remedies.filter((remedy) => remedy.refused === null)
    for (const remedy of open) expect(text()).toContain(remedy.title)
    await press('Put it in')
    expect(inside.emitted('take')?.[0]?.[0]).toEqual(open[0])
  })
})
