/** Where a pointer is in a picture, in the picture's own units. */
export function inPicture(svg: SVGSVGElement, event: PointerEvent): DOMPoint {
  return new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM()!.inverse())
}
