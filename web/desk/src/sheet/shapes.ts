import type { Schemas } from '../app/api'

export type Shape = Schemas['Shape']
export type Place = Schemas['Place']

const four = (value: number) => Math.round(Math.min(1, Math.max(0, value)) * 10_000) / 10_000

export const placeOf = (x: number, y: number): Place => ({ x: four(x), y: four(y) })

/** Left, top, right and bottom of a shape. */
export function boundsOf({ points }: Shape) {
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)]
  return points.length === 0
    ? { x: 0, y: 0, width: 0, height: 0 }
    : { x: Math.min(...xs), y: Math.min(...ys), width: Math.max(...xs) - Math.min(...xs), height: Math.max(...ys) - Math.min(...ys) }
}

/** The same shape elsewhere, or larger; a polygon keeps its form. */
export function within(shape: Shape, to: { x: number; y: number; width: number; height: number }): Shape {
  const from = boundsOf(shape)
  const along = (value: number, start: number, length: number, newStart: number, newLength: number) =>
    newStart + (length > 0 ? ((value - start) / length) * newLength : 0)
  if (shape.kind !== 'polygon') return { ...shape, points: [placeOf(to.x, to.y), placeOf(to.x + to.width, to.y + to.height)] }
  return {
    ...shape,
    points: shape.points.map((p) => placeOf(along(p.x, from.x, from.width, to.x, to.width), along(p.y, from.y, from.height, to.y, to.height))),
  }
}

/** A shape as an SVG path, where the picture is 100 by 100. */
export function pathOf({ kind, points }: Shape): string {
  const at = (p: Place) => `${p.x * 100} ${p.y * 100}`
  if (kind === 'polygon') return points.length > 1 ? `M ${points.map(at).join(' L ')} Z` : ''
  const { x, y, width, height } = boundsOf({ kind, points })
  const [l, t, w, h] = [x * 100, y * 100, width * 100, height * 100]
  if (kind === 'rectangle') return `M ${l} ${t} h ${w} v ${h} h ${-w} Z`
  return `M ${l} ${t + h / 2} a ${w / 2} ${h / 2} 0 1 0 ${w} 0 a ${w / 2} ${h / 2} 0 1 0 ${-w} 0 Z`
}
