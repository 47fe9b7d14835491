import { describe, expect, it } from 'vitest'
import { hoursOf, lanesOf, nextOf } from './lanes'
import { clockOf, minutesOf, type Block, type Day } from './run-up'

function block(key: string, more: Partial<Block>): Block {
  return {
    key,
    kind: 'pot',
    day: 0,
    name: key,
    amount: '',
    note: '',
    lines: [],
    start: 0,
    end: 10,
    parts: [],
    touches: [],
    things: [],
    waits: [],
    after: [],
    cooks: [],
    pinned: false,
    state: 'planned',
    pot: '',
    ...more,
  }
}
const part = (at: number, minutes: number, hands: 'all' | 'now-and-then' | 'none', cook: string) => ({
  at,
  minutes,
  hands,
  cook,
  do: '',
  cue: '',
})
const day = (...blocks: Block[]) => ({ day: 0, blocks, begin: 0, end: 60 }) as unknown as Day

describe('lanes of a run-up', () => {
  it('draws what follows on in one cook as one bar, and what is only looked after below it', () => {
    const roux = block('roux', {
      parts: [part(0, 2, 'all', 'Ilse'), part(2, 5, 'all', 'Ilse'), part(7, 9, 'now-and-then', 'Ilse')],
    })
    const other = block('other', { parts: [part(9, 4, 'now-and-then', 'Ilse')] })
    const [ilse] = lanesOf(day(roux, other), ['Ilse'], [], false)
    expect(ilse!.bars.map((bar) => [bar.kind, bar.start, bar.end, bar.row])).toEqual([
      ['hands', 0, 7, 0],
      ['watch', 7, 16, 1],
      ['watch', 9, 13, 2],
    ])
    expect(ilse!.rows).toBe(3)
  })

  it('leaves what nobody does to nobody, and keeps a cook who has nothing to do', () => {
    const oven = block('oven', { parts: [part(0, 20, 'none', '')], touches: [{ at: 4, do: 'turn', cook: 'Toma' }] })
    const lanes = lanesOf(day(oven), ['Ilse', 'Toma'], [], false)
    expect(lanes.map((lane) => [lane.name, lane.bars.length])).toEqual([
      ['Ilse', 0],
      ['Toma', 1],
    ])
  })

  it('shows what stands in a pan with its limit, and that it is past it', () => {
    const wait = { until: 'plate', minutes: 30, longest: 20, suffers: 1, why: '', held: null, harmed: true }
    const pot = block('pot', {
      end: 10,
      things: [{ pool: 'pan', lane: 'saucepan 20', start: 0, end: 40 }],
      waits: [wait],
    })
    expect(lanesOf(day(pot), [], [], false)).toEqual([])
    const [pan] = lanesOf(day(pot), [], [], true)
    expect(pan!.bars.map((bar) => [bar.kind, bar.start, bar.end, bar.limit, bar.harmed])).toEqual([
      ['thing', 0, 10, undefined, undefined],
      ['wait', 10, 40, 30, true],
    ])
  })

  it('puts cooks first, then rings, oven and things', () => {
    const one = block('one', {
      parts: [part(0, 2, 'all', 'Ilse')],
      things: [
        { pool: 'gear', lane: 'grill', start: 0, end: 2 },
        { pool: 'oven', lane: 'oven', start: 0, end: 2 },
        { pool: 'ring', lane: 'left', start: 0, end: 2 },
      ],
    })
    expect(lanesOf(day(one), ['Ilse'], ['left'], true).map((lane) => lane.name)).toEqual([
      'Ilse',
      'left',
      'oven',
      'grill',
    ])
  })

  it('draws hours no closer than they can be read', () => {
    expect(hoursOf(700, 730, 6)).toEqual([700, 710, 720, 730])
    expect(hoursOf(480, 840, 0.5)).toEqual([480, 600, 720, 840])
  })

  it('tells the next lines of the jobs that are here and not over', () => {
    const lines = [
      { at: 5, minutes: 2, job: 'a' },
      { at: 12, minutes: 0, job: 'b' },
      { at: 14, minutes: 3, job: 'c' },
      { at: 20, minutes: 3, job: 'tomorrow' },
    ]
    const found = nextOf(lines, 9, new Set(['a', 'b', 'c']), new Set(['c']))
    expect(found.map((line) => line.job)).toEqual(['b'])
  })
})

describe('time as a kitchen says it', () => {
  it('goes past midnight either way', () => {
    expect(clockOf(725.5)).toBe('12:05')
    expect(clockOf(-30)).toBe('23:30')
    expect(clockOf(1500)).toBe('01:00')
  })
  it('is in seconds, minutes or hours', () => {
    expect(minutesOf(0.5)).toBe('30 s')
    expect(minutesOf(2.6)).toBe('2.5 min')
    expect(minutesOf(44.6)).toBe('45 min')
    expect(minutesOf(125)).toBe('2 h 5 min')
  })
})
