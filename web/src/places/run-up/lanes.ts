/** Lanes of a run-up: who does what when, and what is taken when. Pixels are made of it elsewhere. */
import type { Block, Day } from './run-up'

export interface Bar {
  block: Block
  start: number
  end: number
  /** hands: a cook throughout; watch: looked after; touch: some seconds; thing: taken; wait: stands ready */
  kind: 'hands' | 'watch' | 'touch' | 'thing' | 'wait'
  row: number
  /** For what stands ready: until when it may. */
  limit?: number
  harmed?: boolean
}
export interface Lane {
  name: string
  pool: string
  rows: number
  bars: Bar[]
}

const POOLS = ['ring', 'oven', 'gear', 'pan']

/** The lanes of a day: cooks first, then rings, oven, things and, where asked for, pans. */
export function lanesOf(day: Day, cooks: string[], rings: string[], pans: boolean): Lane[] {
  const lanes = new Map<string, Lane>()
  const lane = (pool: string, name: string): Lane => {
    const key = `${pool}:${name}`
    if (!lanes.has(key)) lanes.set(key, { name, pool, rows: 1, bars: [] })
    return lanes.get(key)!
  }
  for (const name of cooks) lane('cook', name)
  for (const name of rings) lane('ring', name)
  for (const block of day.blocks) {
    for (const part of block.parts) {
      if (!part.cook || part.minutes <= 0) continue
      const kind = part.hands === 'all' ? 'hands' : 'watch'
      const bars = lane('cook', part.cook).bars
      const last = bars.at(-1)
      if (last?.block === block && last.kind === kind && Math.abs(last.end - part.at) < 0.26) last.end += part.minutes
      else bars.push({ block, start: part.at, end: part.at + part.minutes, kind, row: 0 })
    }
    for (const touch of block.touches) {
      if (touch.cook)
        lane('cook', touch.cook).bars.push({ block, start: touch.at, end: touch.at + 0.5, kind: 'touch', row: 0 })
    }
    for (const thing of block.things) {
      if (thing.pool === 'pan' && !pans) continue
      const bars = lane(thing.pool, thing.lane).bars
      const stands = thing.pool === 'pan' ? Math.min(thing.end, block.end) : thing.end
      bars.push({ block, start: thing.start, end: stands, kind: 'thing', row: 0 })
      if (thing.end > stands) {
        const limits = block.waits.flatMap((wait) => (wait.longest === null ? [] : [wait.longest as number]))
        const limit = limits.length ? block.end + Math.min(...limits) : undefined
        const harmed = block.waits.some((wait) => wait.harmed)
        bars.push({ block, start: stands, end: thing.end, kind: 'wait', row: 0, limit, harmed })
      }
    }
  }
  const order = (one: Lane) => (one.pool === 'cook' ? -1 : POOLS.indexOf(one.pool))
  const found = [...lanes.values()].filter((one) => one.bars.length || one.pool === 'cook')
  found.sort((a, b) => order(a) - order(b))
  for (const one of found) one.rows = rowsOf(one)
  return found
}

/** What is looked after lies in rows below what wants hands, so that nothing hides anything. */
function rowsOf(lane: Lane): number {
  if (lane.pool !== 'cook') return 1
  const ends: number[] = []
  for (const bar of lane.bars.filter((one) => one.kind === 'watch').sort((a, b) => a.start - b.start)) {
    let row = ends.findIndex((end) => end <= bar.start + 1e-6)
    if (row < 0) row = ends.push(0) - 1
    ends[row] = bar.end
    bar.row = row + 1
  }
  return 1 + ends.length
}

/** Whole, half or quarter hours to draw between two minutes, not closer than `apart` px. */
export function hoursOf(begin: number, end: number, perMinute: number, apart = 56): number[] {
  const step = [5, 10, 15, 30, 60, 120].find((minutes) => minutes * perMinute >= apart) ?? 240
  const found = []
  for (let at = Math.ceil(begin / step) * step; at <= end; at += step) found.push(at)
  return found
}

/** The next lines of a cook among the jobs that are `here`: what is not over yet. */
export function nextOf<Line extends { at: number; minutes: number; job: string }>(
  lines: Line[],
  now: number,
  here: Set<string>,
  done: Set<string>,
): Line[] {
  return lines.filter((line) => here.has(line.job) && !done.has(line.job) && line.at + Math.max(line.minutes, 1) > now)
}
