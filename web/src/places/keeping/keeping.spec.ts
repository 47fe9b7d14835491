// @vitest-environment happy-dom
/** What is kept, in words and on its page: facts by tray, corrections, and what is asked before it is drawn on. */
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { clientOver, fresh, wire, type Loose } from '@/testing'
import type { Schemas } from '@/api/client'
import { eventWords, stateWords, verdictWords } from './words'

vi.mock('@/api/client', async (original) => clientOver(await original()))
const { default: KeptEvents } = await import('./KeptEvents.vue')
const { default: CoolingPicture } = await import('./CoolingPicture.vue')
const { beginPot } = await import('@/shell/potOfService')

const stage = (verdict: string, more: Loose = {}) => ({
  to_c: 10,
  limit_min: 120,
  verdict,
  at_least_min: null,
  at_most_min: null,
  due_min: verdict === 'open' ? 125 : null,
  words: verdict,
  warmed_again: false,
  ...more,
})
const tray = (...verdicts: string[]) =>
  ({
    number: 1,
    stages: verdicts.map((one) => stage(one)),
    forecast: null,
    use_by: '2026-12-03',
    failed: false,
    gone: false,
  }) as unknown as Schemas['TrayOut']
const event = (kind: string, data: Loose, more: Loose = {}) =>
  ({
    key: `key-${kind}`,
    kind,
    at: '2026-12-01T10:00:00Z',
    data,
    by: 'Tove',
    void: false,
    set_aside: false,
    ...more,
  }) as unknown as Schemas['EventOut']

beforeEach(() => {
  fresh()
  setActivePinia(createPinia())
})

describe('words of what is kept', () => {
  it('tell the worst of a tray’s stages', () => {
    expect(verdictWords(tray('met', 'met'))).toBe('cooled in time')
    expect(verdictWords(tray('met', 'open'))).toBe('cooling')
    expect(verdictWords(tray('not-shown', 'met'))).toBe('not shown')
    expect(verdictWords(tray('not-shown', 'missed'))).toBe('missed')
  })

  it('say of which tray, what it really was, and that it was used although', () => {
    expect(eventWords(event('temperature', { celsius: 61, tray: 2 }))).toBe('61.0 °C, tray 2')
    expect(eventWords(event('corrected', { why: 'misread', celsius: 6.2 }))).toBe('corrected: misread, it was 6.2 °C')
    expect(eventWords(event('corrected', { why: 'not so' }))).toBe('corrected: not so')
    expect(eventWords(event('drawn', { grams: 300, purpose: 'toast', although: true }))).toContain('although not shown')
    expect(eventWords(event('drawn', { grams: 300, purpose: 'toast' }))).not.toContain('although')
    const forService = { ...event('drawn', { grams: 300, purpose: 'Sunday' }), set_aside: true }
    expect(eventWords(forService)).toBe('300 g set aside for Sunday')
  })

  it('have a word for every state', () => {
    for (const state of ['cooling', 'kept', 'today', 'over', 'frozen', 'gone'])
      expect(stateWords({ state, use_by: '2026-12-03' } as Schemas['KeptLine'])).toBeTruthy()
  })
})

describe('what happened', () => {
  const kept = (events: Schemas['EventOut'][], read: Loose[] = []) =>
    ({ put_at: '2026-12-01T10:00:00Z', trays: 1, events, read }) as unknown as Schemas['KeptOut']

  it('is corrected with the reason and what it really was, never rewritten', async () => {
    const wrapper = mount(KeptEvents, { props: { kept: kept([event('temperature', { celsius: 62 })]) } })
    await wrapper.find('button').trigger('click')
    const [why, really] = wrapper.findAll('input')
    await why!.setValue('misread')
    await really!.setValue('6,2')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('correct')).toEqual([['key-temperature', 'misread', 6.2]])
  })

  it('is not corrected without a reason, nor with a temperature that is none', async () => {
    const wrapper = mount(KeptEvents, { props: { kept: kept([event('temperature', { celsius: 62 })]) } })
    await wrapper.find('button').trigger('click')
    await wrapper.find('form').trigger('submit')
    const [why, really] = wrapper.findAll('input')
    await why!.setValue('misread')
    await really!.setValue('warm')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('correct')).toBeUndefined()
  })

  it('lists a device’s readings once a minute, simulated ones as such, corrected ones struck out', () => {
    const point = { tray: 1, shared: false, device: 'bench', simulated: true, void: false }
    const read = [0.1, 0.4, 0.9, 3].map((at_min, n) => ({ ...point, key: `reading-${n}`, at_min, celsius: 60 + n }))
    const wrapper = mount(KeptEvents, {
      props: { kept: kept([], [...read, { ...read[0], at_min: 9, void: true, key: 'reading-9' }]) },
    })
    expect(wrapper.findAll('li')).toHaveLength(3)
    expect(wrapper.text()).toContain('bench, simulated')
    expect(wrapper.findAll('li.void')).toHaveLength(1)
    expect(wrapper.find('li.void button').exists()).toBe(false)
  })
})

describe('the picture of a cooling', () => {
  const cooling = {
    clock_from_min: 5,
    words: 'in time',
    stages: [{ to_c: 10, limit_min: 120, took_min: 60, met: true }],
    curve: [0, 60, 120].map((at_min) => ({ at_min, hottest_c: 80 - at_min / 2 })),
  } as unknown as Schemas['Cooling']

  it('goes by what readings prove, not by the sum', () => {
    const met = mount(CoolingPicture, { props: { cooling } })
    expect(met.find('.gate.is-met').exists()).toBe(true)
    const missed = mount(CoolingPicture, { props: { cooling, tray: tray('missed') } })
    expect(missed.find('.gate.is-missed').exists()).toBe(true)
    expect(missed.find('.gate.is-met').exists()).toBe(false)
  })

  it('keeps the sum behind what was read, and a corrected reading as a cross', () => {
    const read = [
      { key: 'a', at_min: 5, celsius: 66, void: false },
      { key: 'b', at_min: 9, celsius: 62, void: true },
    ] as Schemas['ReadPoint'][]
    const wrapper = mount(CoolingPicture, { props: { cooling, tray: tray('open'), read } })
    expect(wrapper.find('.sum.behind').exists()).toBe(true)
    expect(wrapper.findAll('circle.read')).toHaveLength(1)
    expect(wrapper.findAll('path.void')).toHaveLength(1)
  })
})

describe('a pot of a service', () => {
  it('asks before it draws on what is not shown to have cooled, and takes the answer along', async () => {
    for (const yes of [true, false]) {
      const bodies: Loose[] = []
      wire.answer = (_path, body) => {
        bodies.push(body)
        return bodies.length === 1
          ? { status: 409, body: { message: 'Not shown: white sauce', asks: [7] } }
          : { status: 201, body: { id: 12 } }
      }
      const confirm = vi.fn(() => yes)
      vi.stubGlobal('confirm', confirm)
      window.confirm = confirm
      expect((await beginPot(3, 'mother'))!.id).toBe(12)
      expect(confirm).toHaveBeenCalledOnce()
      expect(bodies.map((body) => body.use_unshown)).toEqual([undefined, yes])
    }
  })
})
