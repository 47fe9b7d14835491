/** Side view of a pan to scale: outline and level, as paths in millimetres of the real pan. */

export interface PanShape {
  shape: string
  diameter_cm: number
  depth_cm: number
}

const round = (pan: PanShape) => pan.shape === 'bowl' || pan.shape === 'shell'

/** Half the width of the pan (mm) at a height (mm) above its floor. */
export function halfWidth(pan: PanShape, height: number): number {
  const rim = pan.diameter_cm * 5
  const depth = pan.depth_cm * 10
  if (pan.shape === 'sloped') return rim * (0.75 + 0.25 * Math.min(1, height / depth))
  if (round(pan)) {
    const sphere = (rim * rim + depth * depth) / (2 * depth)
    const h = Math.min(height, depth)
    return Math.sqrt(Math.max(0, 2 * sphere * h - h * h))
  }
  return rim
}

/** The inside of the pan from `bottom` up to `top` (mm above the floor), as a closed path with
 * y pointing down from the rim. */
export function slice(pan: PanShape, bottom: number, top: number): string {
  const depth = pan.depth_cm * 10
  const steps = round(pan) ? 24 : 1
  const heights = Array.from({ length: steps + 1 }, (_, i) => bottom + ((top - bottom) * i) / steps)
  const right = heights.map((h) => `${halfWidth(pan, h).toFixed(2)},${(depth - h).toFixed(2)}`)
  const left = heights
    .map((h) => `${(-halfWidth(pan, h)).toFixed(2)},${(depth - h).toFixed(2)}`)
    .reverse()
  return `M${[...right, ...left].join('L')}Z`
}
