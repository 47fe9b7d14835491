/** Side view of a pan to scale, along the outline the core gives: paths in millimetres of the real pan. */
import type { Schemas } from '@/api/client'

type Outline = Schemas['SideView']['outline']

/** Half the width of the pan (mm) at a height (mm) above its floor: straight between the points. */
export function halfWidth(outline: Outline, height: number): number {
  const above = outline.findIndex((point) => point.height_mm >= height)
  if (above === 0) return outline[0]!.half_mm
  if (above < 0) return outline.at(-1)?.half_mm ?? 0
  const [low, high] = [outline[above - 1]!, outline[above]!]
  const along = (height - low.height_mm) / (high.height_mm - low.height_mm)
  return low.half_mm + (high.half_mm - low.half_mm) * along
}

/** The inside of the pan from `bottom` up to `top` (mm above the floor), as a closed path with
 * y pointing down from the rim. */
export function slice(outline: Outline, bottom: number, top: number): string {
  const depth = outline.at(-1)?.height_mm ?? 0
  const between = outline.map((point) => point.height_mm).filter((at) => at > bottom && at < top)
  const heights = [bottom, ...between, top]
  const right = heights.map((h) => `${halfWidth(outline, h).toFixed(2)},${(depth - h).toFixed(2)}`)
  const left = heights.map((h) => `${(-halfWidth(outline, h)).toFixed(2)},${(depth - h).toFixed(2)}`).reverse()
  return `M${[...right, ...left].join('L')}Z`
}
