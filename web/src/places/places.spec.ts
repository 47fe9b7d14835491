// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import { millilitres } from '@/parts/format'
import { clientOver, demo, demoServer, fresh, mounted, refused, wire, type Loose } from '@/testing'
import Builder from './builder/Builder.vue'
import Enter from './entry/Enter.vue'
import Lost from './entry/Lost.vue'
import Fix from './fix/Fix.vue'
import Dish from './dishes/Dish.vue'
import Dishes from './dishes/Dishes.vue'
import Journal from './journal/Journal.vue'
import Larder from './larder/Larder.vue'
import ReadRecipe from './sauces/ReadRecipe.vue'
import RecipeCard from './sauces/RecipeCard.vue'
import Sauces from './sauces/Sauces.vue'
import PrintSheet from './service/PrintSheet.vue'
import Service from './service/Service.vue'
import Services from './service/Services.vue'
import Batch from './stove/Batch.vue'
import Stove from './stove/Stove.vue'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
beforeEach(() => {
  fresh()
  wire.answer = demoServer
})
afterEach(() => {
  document.body.innerHTML = ''
  vi.unstubAllGlobals()
})
const sauce = () => demo('GET /api/sauces/{sauce_id}') as Schemas['SauceOut']
const service = () => demo('GET /api/services/{service_id}') as Schemas['ServiceOut']
const plan = () => demo('POST /api/services/work').plan as Schemas['Plan']
const batch = () => demo('GET /api/stove/{batch_id}') as Schemas['BatchOut']
/** The demo's answers, but for one path. */
const butFor = (path: string, method: string, answer: (body: Loose) => { status: number; body: unknown }) => {
  wire.answer = (asked, body, by) => (asked === path && by === method ? answer(body) : demoServer(asked, body, by))
}
const askedOf = (path: string) => wire.asked.filter((one) => one.path === path).map((one) => one.body)

describe('sauces', () => {
  it('lists every sauce with its outcome', async () => {
    const { text } = await mounted(Sauces)
    for (const line of (demo('GET /api/sauces') as unknown as Schemas['SaucePage']).rows)
      expect(text()).toContain(line.name)
    expect(text()).toContain(millilitres(sauce().outcome.volume_ml).replace(/\s+/g, ' '))
  })
  it('starts with the starting points where there is none yet', async () => {
    butFor('/api/sauces', 'GET', () => ({ status: 200, body: { rows: [], total: 0 } }))
    const { text } = await mounted(Sauces)
    expect(text()).toContain('Start with a sauce')
    expect(text()).toContain('From nothing')
  })
  it('says what keeps it from the list, with a way on', async () => {
    butFor('/api/sauces', 'GET', () => ({ status: 500, body: { message: 'out' } }))
    const { text } = await mounted(Sauces)
    expect(text()).toContain('Try again')
  })
  it('reads a recipe line by line and has the open ones settled', async () => {
    const { text, field, press } = await mounted(ReadRecipe)
    await field('Recipe').setValue('Sauce\n50 g butter')
    await press('Read it')
    expect(askedOf('/api/work/read')[0]!.text).toContain('50 g butter')
    const { reading } = demo('POST /api/work/read') as Schemas['RecipeRead']
    for (const line of reading.lines) expect(text()).toContain(line.text)
    expect(text()).toContain('Open it as a sauce')
  })
  it('prints a card with every step', async () => {
    const { text } = await mounted(RecipeCard, { id: sauce().id, size: 'A5' })
    for (const card of demo('POST /api/work/check').cards as Schemas['Card'][]) expect(text()).toContain(card.title)
  })
})

describe('the builder', () => {
  it('shows the steps, and the pot as it is', async () => {
    const { text, field } = await mounted(Builder, { id: sauce().id })
    expect(field('Name of the sauce').element.value).toBe(sauce().name)
    for (const card of demo('POST /api/work/check').cards as Schemas['Card'][]) expect(text()).toContain(card.title)
    expect(text()).toContain(`saved, version ${sauce().version}`)
  })
  it('keeps what is refused in its field and does not cook it', async () => {
    const { text, inside } = await mounted(Builder, { id: sauce().id })
    butFor('/api/work/check', 'POST', () => refused('steps[0].fat.amount'))
    await inside.get('.step input').setValue('lots')
    await flushPromises()
    expect(text()).toContain('is wrong. Mend it.')
    const cook = inside.findAll('button').find((button) => button.text() === 'Cook it')
    expect(cook!.attributes('disabled')).toBeDefined()
  })
  it('has a way back where the sauce is not there', async () => {
    butFor('/api/sauces/{sauce_id}', 'GET', () => ({ status: 404, body: { message: 'no such sauce' } }))
    expect((await mounted(Builder, { id: 999 })).text()).toContain('Back to the sauces')
  })
})

describe('the stove', () => {
  it('lists what is on', async () => {
    expect((await mounted(Stove)).text()).toContain(batch().name)
  })
  it('shows one step, its weights and the next', async () => {
    const { text } = await mounted(Batch, { id: batch().id })
    const [first, second] = batch().plan!.cards
    expect(text()).toContain(`Step 1 of ${batch().steps}`)
    for (const weighed of first!.weighed) expect(text()).toContain(weighed.name)
    expect(text()).toContain(`Done. Next: ${second!.title}`)
  })
  it('moves on from where the pot is known to be', async () => {
    const { press } = await mounted(Batch, { id: batch().id })
    butFor('/api/stove/{batch_id}/acts', 'POST', (body) => ({
      status: 200,
      body: {
        acts: [{ key: body.acts[0].key, taken: true, why: '' }],
        batch: { ...batch(), step: body.acts[0].to_step, revision: 2 },
      },
    }))
    await press(`Done. Next: ${batch().plan!.cards[1]!.title}`)
    const [asked] = askedOf('/api/stove/{batch_id}/acts')
    expect(asked!.acts[0]).toMatchObject({ kind: 'go', from_step: 0, to_step: 1 })
    expect(document.body.textContent).toContain(`Step 2 of ${batch().steps}`)
  })
  it('ends with weighing and a verdict', async () => {
    butFor('/api/stove/{batch_id}', 'GET', () => ({ status: 200, body: { ...batch(), step: batch().steps } }))
    const { text } = await mounted(Batch, { id: batch().id })
    expect(text()).toContain('What does it weigh?')
  })
})

describe('service', () => {
  it('lists what is planned, and the dishes', async () => {
    const { text } = await mounted(Services)
    expect(text()).toContain(service().name)
    for (const dish of demo('GET /api/dishes') as unknown as Schemas['DishOut'][]) expect(text()).toContain(dish.name)
  })
  it('shows what is served and the pots it takes', async () => {
    const { text, field } = await mounted(Service, { id: service().id })
    expect(field('Name of the service').element.value).toBe(service().name)
    for (const pot of plan().pots) expect(text()).toContain(pot.name)
    for (const dish of new Set(plan().lines.map((line) => line.called.split(',')[0]!))) expect(text()).toContain(dish)
  })
  it('has the figures of a pot at hand, and its pan to change', async () => {
    const { inside, text } = await mounted(Service, { id: service().id })
    const pot = plan().pots[0]!
    await inside.findAll('.list button')[0]!.trigger('click')
    expect(text()).toContain(`${Math.round(100 * pot.fill_share)} % full`)
    expect(text()).toContain('In which pan')
  })
  it('tells a guest’s line that cannot be served beside itself, and takes the swap that works', async () => {
    const work = demo('POST /api/services/work') as Schemas['ServiceWorked']
    const swaps = { 'milk-whole': 'milk-oat' }
    const offer = { swaps, words: 'oat drink in place of whole milk', gains: [] }
    const lines = work.plan.lines.map((line, i) => (i ? line : { ...line, refused: true, offers: [offer] }))
    const amiss = ['Sauce stands on whole milk', 'and on butter'].map((message) => ({
      ...{ field: 'lines[0].without', code: 'x', message },
      remedy: 'Swap it',
    }))
    butFor('/api/services/work', 'POST', () => ({
      status: 200,
      body: { ...work, plan: { ...work.plan, lines, amiss } },
    }))
    const { text, press } = await mounted(Service, { id: service().id })
    expect(text()).toContain('not served yet')
    expect(text()).toContain('and on butter')
    expect(text()).toContain('Sauce stands on whole milk. Swap it.')
    await press('Use it')
    expect(askedOf('/api/services/work').at(-1)!.document.lines[0].swaps).toEqual(swaps)
  })
  it('prints the sheet', async () => {
    const { text } = await mounted(PrintSheet, { id: service().id })
    for (const line of plan().lines) expect(text()).toContain(line.called)
  })
})

describe('dishes', () => {
  const dish = () => demo('GET /api/dishes/{dish_id}') as Schemas['DishOut']
  it('lists them beside kinds to start from', async () => {
    const { text } = await mounted(Dishes)
    for (const one of demo('GET /api/dishes/starts') as unknown as Schemas['DishStartOut'][])
      expect(text()).toContain(one.name)
    expect(text()).toContain(dish().name)
  })
  it('shows what a portion comes to, and a part’s fields when it is pressed', async () => {
    const { text, inside, field } = await mounted(Dish, { id: dish().id, start: '' })
    const { seen } = demo('POST /api/dishes/read') as Schemas['DishRead']
    expect(text()).toContain(`${seen.mouthful.salt_pct.toFixed(2)} %`)
    for (const one of seen.sauces) expect(text()).toContain(`${Math.round(one.portion_ml)} mL`)
    await inside.get('nav button').trigger('click')
    expect(field('mL 1').element.value).toBe(String(dish().document.sauces![0]!.per_ml ?? ''))
  })
  it('keeps what another window did not', async () => {
    const read = demo('POST /api/dishes/read') as Schemas['DishRead']
    wire.answer = (path, body, method) => {
      if (path === '/api/dishes/read') return { status: 200, body: { ...read, dish: body.document } }
      if (method === 'PUT') {
        const theirs = { message: 'Changed meanwhile.', document: dish().document, revision: dish().revision + 1 }
        return body.revision === dish().revision ? { status: 409, body: theirs } : { status: 200, body: { ...dish() } }
      }
      return demoServer(path, body, method)
    }
    const { field, press, text, inside } = await mounted(Dish, { id: dish().id, start: '' })
    await field('Dish name').setValue('Another name')
    await flushPromises()
    await inside.get('form').trigger('submit')
    await flushPromises()
    expect(text()).toContain('Changed meanwhile.')
    await press('Put mine in its place')
    // Looking may go on beside it; what was sent to be kept is what counts.
    const kept = () => wire.asked.filter((one) => one.method === 'PUT').at(-1)!.body
    await vi.waitFor(() => expect(kept().revision).toBe(dish().revision + 1), 10_000)
    expect(kept()).toMatchObject({ document: { name: 'Another name' } })
  })
})

describe('the other places', () => {
  it('ask for a pot never seen', async () => {
    expect((await mounted(Fix)).text()).toContain('Pick the spoon that looks like it.')
  })
  it('write down plan and outcome', async () => {
    const page = demo('GET /api/journal') as Schemas['EntryPage']
    const { text } = await mounted(Journal)
    expect(page.entries.length).toBeGreaterThan(0)
    for (const entry of page.entries) expect(text()).toContain(entry.name)
  })
  it('list the larder', async () => {
    const { text } = await mounted(Larder)
    const { ingredients } = demo('GET /api/larder') as Schemas['Catalogue']
    for (const row of ingredients.slice(0, 5)) expect(text()).toContain(row.name)
  })
  it('let someone in, and say what was wrong', async () => {
    butFor('/api/accounts/sign-in', 'POST', () => refused('password'))
    const { field, inside, text } = await mounted(Enter)
    await field('Name').setValue('ada')
    await inside.get('form').trigger('submit')
    await flushPromises()
    expect(askedOf('/api/accounts/sign-in')).toEqual([{ username: 'ada', password: '' }])
    expect(text()).toContain('is wrong. Mend it.')
  })
  it('lead back from an address that is none', async () => {
    expect((await mounted(Lost)).inside.find('a, button').exists()).toBe(true)
  })
})
