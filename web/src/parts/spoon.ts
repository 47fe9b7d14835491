/** What the back of a spoon shows, as lengths in the picture's own units (100 wide). */

export interface SpoonPicture {
  /** How far the sauce stands out over the rim of the spoon. */
  film: number
  /** How much of the metal is hidden, 0 to 1. */
  cover: number
  /** Length and width of the longest drip. */
  drip: number
  dripWidth: number
  /** Width of the line a finger drew through the film, and how much of it has stayed open, 0 to 1. */
  line: number
  open: number
  /** How high it stands in a peak. */
  peak: number
}

/** From what runs off to what stands, Pa·s: each grade is half a logarithm of it. */
const RUNS_OFF = 0.02
const STANDS = 40
const soft = (x: number) => {
  const held = Math.min(1, Math.max(0, x))
  return held * held * (3 - 2 * held)
}

/**
 * Continuous in viscosity (Pa·s) and in the film (mm) the core worked out, so that a little
 * more flour always shows a little; told apart at arm's length by outline, drip and line together.
 */
export function spoonPicture(viscosity: number, filmMm: number): SpoonPicture {
  const thick = Math.min(1, Math.max(0, Math.log(viscosity / RUNS_OFF) / Math.log(STANDS / RUNS_OFF)))
  return {
    film: 0.5 + 18 * thick ** 1.3,
    cover: 1 - Math.exp(-filmMm / 0.55),
    drip: 42 * (1 - thick) ** 1.6,
    dripWidth: 2.5 + 9 * thick,
    line: 1.5 + 15 * soft(thick / 0.9),
    open: soft((thick - 0.12) / 0.4),
    peak: 20 * soft((thick - 0.62) / 0.38),
  }
}
