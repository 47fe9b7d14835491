/**
 * What is believed of a pot right now, looked up in what the server worked out beforehand: by the minute, and after one
 * more look. Nothing is reckoned here but the place between two lines of a table.
 */
import type { Schemas } from '@/api/client'

export type Ahead = Schemas['Ahead']
export type Moment = Schemas['Moment']
type Guess = Schemas['Guess']
/** A look that was taken and that the server has not heard of yet, `min` minutes after the tables begin. */
export interface Look {
  what: string
  value: number
  min: number
}

const mix = (a: number, b: number, part: number) => a + (b - a) * part
const mixed = (a: Guess, b: Guess, part: number): Guess => ({
  value: mix(a.value, b.value, part),
  low: mix(a.low, b.low, part),
  high: mix(a.high, b.high, part),
})
function between(a: Moment, b: Moment, part: number): Moment {
  const left = a.minutes_left && b.minutes_left ? mixed(a.minutes_left, b.minutes_left, part) : a.minutes_left
  return {
    in_min: mix(a.in_min, b.in_min, part),
    boils_in_min: mix(a.boils_in_min, b.boils_in_min, part),
    minutes_left: left,
    mass_g: mixed(a.mass_g, b.mass_g, part),
    share_left: mixed(a.share_left, b.share_left, part),
    level_mm: mixed(a.level_mm, b.level_mm, part),
    viscosity_pa_s: mixed(a.viscosity_pa_s, b.viscosity_pa_s, part),
  }
}
/** The line of the table at `min` minutes, or between two. */
export function at(moments: Moment[], min: number): Moment {
  const after = moments.findIndex((one) => one.in_min > min)
  if (after === 0) return moments[0]!
  if (after < 0) return moments.at(-1)!
  const [low, high] = [moments[after - 1]!, moments[after]!]
  return between(low, high, (min - low.in_min) / (high.in_min - low.in_min))
}
/** The pot as it is once `look` is taken; null: such a look is in no table. */
function seen(ahead: Ahead, look: Look): Moment | null {
  const kind = ahead.looks.filter((one) => one.what === look.what).sort((a, b) => a.value - b.value)
  if (!kind.length) return null
  const after = kind.findIndex((one) => one.value >= look.value)
  const high = kind[after < 0 ? kind.length - 1 : after]!
  const low = kind[after <= 0 ? (after < 0 ? kind.length - 1 : 0) : after - 1]!
  const part = high.value > low.value ? (look.value - low.value) / (high.value - low.value) : 0
  return between(at(low.moments, look.min), at(high.moments, look.min), Math.min(1, Math.max(0, part)))
}
/** What was found moves on as the pot by itself does, and opens as that opens: by the clock alone it is never surer. */
function movedOn(found: Guess, then: Guess, now: Guess): Guess {
  const by = now.value - then.value
  const wider = Math.max(0, now.high - now.low - (then.high - then.low)) / 2
  const value = Math.max(0, found.value + by)
  return {
    value,
    low: Math.max(0, Math.min(value, found.low + by - wider)),
    high: Math.max(value, found.high + by + wider),
  }
}
/** `told`, what the server said of a pot, with the figures that are looked up now: the scale shows what left it less. */
export function asLookedUp(told: Schemas['Watched'], figures: Moment): Schemas['Watched'] {
  const gone_g = told.mass_g.value - figures.mass_g.value
  return { ...told, ...figures, scale_g: told.scale_g === null ? null : told.scale_g - gone_g }
}
/** The pot `min` minutes after the tables begin, with the last look that the server has not heard of. */
export function lookedUp(ahead: Ahead, min: number, look: Look | null): Moment {
  const now = at(ahead.by_itself, min)
  const found = look && seen(ahead, look)
  if (!look || !found) return now
  const then = at(ahead.by_itself, look.min)
  const left =
    found.minutes_left && then.minutes_left && now.minutes_left
      ? movedOn(found.minutes_left, then.minutes_left, now.minutes_left)
      : found.minutes_left
  return {
    in_min: min,
    boils_in_min: Math.max(0, found.boils_in_min - (min - look.min)),
    minutes_left: left,
    mass_g: movedOn(found.mass_g, then.mass_g, now.mass_g),
    share_left: movedOn(found.share_left, then.share_left, now.share_left),
    level_mm: movedOn(found.level_mm, then.level_mm, now.level_mm),
    viscosity_pa_s: movedOn(found.viscosity_pa_s, then.viscosity_pa_s, now.viscosity_pa_s),
  }
}
