/** What the back of a spoon shows, as lengths in the picture's own units (100 wide). */

export interface SpoonPicture {
  /** Thickness of the film's rim. */
  film: number
  /** How much of the metal is hidden, 0 to 1. */
  cover: number
  /** Length of the longest drip. */
  drip: number
  /** Width of the line a finger drew through the film. */
  line: number
}

/**
 * Continuous in viscosity (Pa·s) and in the film (mm) the core worked out, so that a little
 * more flour always shows a little.
 */
export function spoonPicture(viscosity: number, filmMm: number): SpoonPicture {
  const thick = Math.log10(viscosity / RUNS_OFF) / 3
  const held = 1 / (1 + Math.exp(-6 * (thick - 0.42)))
  return {
    film: 16 * Math.tanh(filmMm / 5),
    cover: 1 - Math.exp(-filmMm / 0.55),
    drip: 34 * (1 - 1 / (1 + Math.exp(-5 * (thick - 0.5)))),
    line: 1.5 + 11 * held,
  }
}
const RUNS_OFF = 0.01
