/** Geometry of the thickness ribbon: a logarithmic band from liquid to panade. */

export const RIBBON_LOW = 0.012
export const RIBBON_HIGH = 60

/** Where a viscosity (Pa·s) lies along the ribbon, 0 to 1. */
export function along(viscosity: number): number {
  const span = Math.log(RIBBON_HIGH / RIBBON_LOW)
  return Math.min(1, Math.max(0, Math.log(viscosity / RIBBON_LOW) / span))
}

export interface Band {
  key: string
  name: string
  from: number
  to: number
}

/** The grades as stretches of the ribbon, with what is thinner than all of them in front. */
export function bands(grades: { key: string; name: string; low_pa_s: number; high_pa_s: number | null }[]): Band[] {
  const first = grades[0]
  if (!first) return []
  return [
    { key: 'liquid', name: '', from: 0, to: along(first.low_pa_s) },
    ...grades.map((grade) => ({
      key: grade.key,
      name: grade.name,
      from: along(grade.low_pa_s),
      to: grade.high_pa_s === null ? 1 : along(grade.high_pa_s),
    })),
  ]
}
