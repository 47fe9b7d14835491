// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { clientOver, demo, demoServer, fresh, mounted, wire, type Loose } from '@/testing'
import { scaleReads } from '@/parts/format'
import { useSession } from '@/shell/session'
import Batch from './Batch.vue'
import Stands from './Stands.vue'
import Stove from './Stove.vue'
import Watching from './Watching.vue'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
beforeEach(() => {
  fresh()
  wire.answer = demoServer
})
afterEach(() => {
  document.body.innerHTML = ''
})
const batch = () => demo('GET /api/stove/{batch_id}') as Schemas['BatchOut']
const free = () => demo('POST /api/stove/free') as Schemas['BatchOut']
const aside = () => demo('POST /api/stove/asides') as Schemas['BatchOut']
/** Every act that was sent, in order. */
const acts = () =>
  wire.asked
    .filter((one) => one.path === '/api/stove/{batch_id}/acts')
    .flatMap((one) => (one.body as Loose).acts as Loose[])
/** The server with this pot in the place of the demo's, which takes every act. */
const withPot = (pot: Schemas['BatchOut']) => {
  wire.answer = (path, body, by) => {
    if (path === '/api/stove/{batch_id}' && by === 'GET') return { status: 200, body: pot }
    if (path === '/api/stove/{batch_id}/acts') {
      const sent = (body as Loose).acts as Loose[]
      const taken = sent.map(({ key }) => ({ key, taken: true, why: '' }))
      const told = sent.map((act) => ({ ...act, step: act.step ?? pot.step, data: act, by: '' }))
      pot = { ...pot, revision: pot.revision + 1, acts: [...pot.acts, ...(told as unknown as typeof pot.acts)] }
      return { status: 200, body: { acts: taken, batch: pot } }
    }
    return demoServer(path, body, by)
  }
}

describe('the map of the hob', () => {
  it('shows every ring, and who stands where', async () => {
    const line = { ...(demo('GET /api/stove') as unknown as Schemas['BatchLine'][])[0]! }
    const { rings } = demo('GET /api/stove/hob') as Schemas['Hob']
    wire.answer = (path, body, by) =>
      path === '/api/stove' && by === 'GET'
        ? {
            status: 200,
            body: [
              { ...line, ring: rings[0]!.name, cook: 'Tove' },
              { ...line, id: 99, name: 'Other' },
            ],
          }
        : demoServer(path, body, by)
    const { text } = await mounted(Stove)
    for (const ring of rings) expect(text()).toContain(ring.name)
    expect(text()).toContain('Tove')
    expect(text()).toContain('On no ring')
    expect(text()).toContain('free')
  })
  it('has the ways of the library for what is no sauce', async () => {
    wire.answer = (path, body, by) =>
      path === '/api/stove' && by === 'GET' ? { status: 200, body: [] } : demoServer(path, body, by)
    const { press, field, inside } = await mounted(Stove)
    await press('Fish, pasta, oven…')
    expect(inside.find('[aria-label="What is it?"]').exists()).toBe(true)
    await field('Minutes it takes').setValue('6')
    expect(inside.findAll('[role=radio]').length).toBe((demo('GET /api/stove/hob') as Schemas['Hob']).ways.length)
  })
})

describe('a pot cooked free hand', () => {
  it('takes what goes in, in the unit shown or as it is written', async () => {
    withPot(free())
    const { press, field } = await mounted(Batch, { id: free().id })
    await press('Pour or put in')
    await field('How much of Whole milk').setValue('500')
    await press('It is in')
    await press('Pour or put in')
    await field('How much of Whole milk').setValue('2 ladles')
    await press('It is in')
    const puts = acts().map((act) => act.put)
    expect(puts[0]).toMatchObject({ op: 'add', ingredient: 'milk-whole', amount: { value: '500', unit: 'g' } })
    expect(puts[1].amount).toEqual({ value: '2 ladles', unit: 'g' })
  })
  it('loses nothing that was typed when another thing is begun, or it is done', async () => {
    withPot({ ...free(), steps: 1, cards: batch().cards.slice(0, 1) })
    const { press, field, text } = await mounted(Batch, { id: free().id })
    await press('Pour or put in')
    await field('How much of Whole milk').setValue('half a litre')
    await press('Fat and flour')
    expect(acts().map((act) => act.put.op)).toEqual(['add'])
    await field('How much of Butter, unsalted').setValue('60')
    await press('Done. Weigh and judge')
    expect(text()).toContain('How much wheat flour, plain?')
    await field('How much of Wheat flour, plain').setValue('60')
    await press('Done. Weigh and judge')
    expect(acts().map((act) => act.kind)).toEqual(['added', 'added', 'go'])
  })
  it('cannot be weighed before anything is in it', async () => {
    withPot(free())
    const { inside, text } = await mounted(Batch, { id: free().id })
    const done = inside.findAll('button').find((one) => one.text() === 'Done. Weigh and judge')
    expect(done!.attributes('disabled')).toBeDefined()
    expect(text()).toContain('Press what goes in first')
  })
  it('is shown at once with what is on its way', async () => {
    withPot(free())
    wire.answer = ((answer) => (path: string, body: unknown, by: string) =>
      path === '/api/stove/{batch_id}/acts' ? { status: 503, body: {} } : answer(path, body as Loose, by))(wire.answer)
    const { press, field, text } = await mounted(Batch, { id: free().id })
    await press('Fat and flour')
    await field('How much of Butter, unsalted').setValue('60')
    await field('How much of Wheat flour, plain').setValue('60')
    await press('It is in')
    expect(text()).toContain('Roux')
    expect(text()).not.toContain('Press what goes in first')
  })
})

describe('what went in', () => {
  const name = () => batch().cards[0]!.weighed[0]!.name
  async function opened() {
    withPot(batch())
    const pot = await mounted(Batch, { id: batch().id })
    await pot.inside.get('.much').trigger('click')
    return pot
  }
  const typed = () => acts().filter((act) => act.kind === 'put')
  it('is told by the jug: before and after, or what an emptied one held', async () => {
    for (const left of ['200', '']) {
      const { press, field } = await opened()
      await press('By the jug')
      await flushPromises()
      await field(`The jug held, mL of ${name()}`).setValue('1 L')
      await field(`The jug holds still, mL, ${name()}`).setValue(left)
      await press('went in')
      const told = acts().at(-1)
      expect(told).toMatchObject({ how: 'jug', before: '1 L', after: left || '0' })
    }
  })
  it('is sent as it was typed, in the unit that stands there', async () => {
    const { press, field, text } = await opened()
    await field(`Really went in, ${name()}`).setValue('half a cup')
    await press('went in')
    expect(typed()).toMatchObject([{ amount: 'half a cup', unit: 'g' }])
    expect(text()).toContain('half a cup went in.')
  })
  it('counts when it was typed and left, and not where it is as planned', async () => {
    const { field, inside } = await opened()
    await field(`Really went in, ${name()}`).setValue('3 ladles')
    await inside.get('form.went').trigger('focusout')
    expect(typed()).toMatchObject([{ amount: '3 ladles' }])
    const other = await opened()
    await other.field(`Really went in, ${name()}`).setValue('9')
    await other.press('as planned')
    expect(typed()).toHaveLength(1)
  })
  it('is asked back where it is absurd, and taken where it is meant', async () => {
    withPot(batch())
    const told = { field: 'acts[0].amount', code: 'put-is-meant', message: 'is 168 kg meant?', remedy: 'Say so' }
    wire.answer = ((answer) => (path: string, body: Loose, by: string) =>
      path === '/api/stove/{batch_id}/acts' && body.acts.some((act: Loose) => act.kind === 'put' && !act.sure)
        ? { status: 422, body: { problems: [told] } }
        : answer(path, body, by))(wire.answer)
    const { press, field, inside, text } = await mounted(Batch, { id: batch().id })
    await inside.get('.much').trigger('click')
    await field(`Really went in, ${name()}`).setValue('700 cups')
    await press('went in')
    await flushPromises()
    expect(text()).toContain('is 168 kg meant?')
    await press('Yes, so much')
    await flushPromises()
    expect(
      acts()
        .filter((act) => act.kind === 'put')
        .at(-1),
    ).toMatchObject({ amount: '700 cups', sure: true })
  })
})

describe('a pan beside the pots', () => {
  it('goes on by itself: the next timer runs at once', async () => {
    withPot(aside())
    const { press, text } = await mounted(Batch, { id: aside().id })
    expect(text()).not.toContain('Fix it')
    await press('Done. Next: Hake: turn')
    const mine = acts().filter((act) => ['go', 'timer-on'].includes(act.kind))
    expect(mine.map((act) => act.kind)).toEqual(['go', 'timer-on'])
    expect(mine[1]!.seconds).toBe(aside().cards[1]!.timer_s)
  })
})

const guess = (value: number) => ({ value, low: value, high: value })
/** A pot that boils down, of which nothing is to be told but `more`. */
const pot = (more: Partial<Schemas['Watched']>) => {
  const about = ['mass_g', 'level_mm', 'share_left', 'viscosity_pa_s'].map((name) => [name, guess(240)])
  const nothing = { goal: null, minutes_left: null, past: null, passing: [], track: [], notes: [], looked: 0 }
  return { ...Object.fromEntries(about), ...nothing, ...more } as unknown as Schemas['Watched']
}

describe('where it stands', () => {
  it('changes the pan alone, and ring and cook stay', async () => {
    withPot({ ...batch(), ring: 'back left', cook: 'Odd' })
    const { inside } = await mounted(Batch, { id: batch().id })
    const { pans } = demo('GET /api/stove/hob') as Schemas['Hob']
    const other = pans.find((pan) => pan !== batch().pan)!
    inside.findComponent(Stands).vm.$emit('stands', { pan: other })
    await flushPromises()
    expect(acts().at(-1)).toMatchObject({ kind: 'stands', ring: 'back left', cook: 'Odd', pan: other })
  })
  it('tells of another pot in its pan, as long as it is on', async () => {
    const shares_pan = 'The pot is under Other too'
    withPot({ ...batch(), shares_pan })
    expect((await mounted(Batch, { id: batch().id })).text()).toContain(`${shares_pan}.`)
    withPot({ ...batch(), shares_pan, status: 'done' })
    document.body.innerHTML = ''
    expect((await mounted(Batch, { id: batch().id })).text()).not.toContain(shares_pan)
  })
  it('tells weights with the pan and without it apart', async () => {
    const { text } = await mounted(Watching, { watched: pot({ scale_g: 1100 }) })
    expect(text()).toContain(`in the pot: ${scaleReads(1100)} with the pan`)
    expect(text()).toContain('The marks are weights with the pan')
    document.body.innerHTML = ''
    const unweighed = await mounted(Watching, { watched: pot({ scale_g: null }) })
    expect(unweighed.text()).not.toContain('with the pan')
  })
  it('is as thick as its figures say, not as the grade it had when it was heard of', async () => {
    const { text } = await mounted(Watching, { watched: pot({ viscosity_pa_s: guess(0.7), grade: 'pouring' }) })
    expect(text()).toContain(`thick now${useSession().gradeName('nappe')}`)
  })
})
