import type { Lesson } from '../lesson'

export type Area = Lesson['areas'][number]
export type Corner = Area['outline'][number]['points'][number]

/** Where an area's corners are seen at a moment: straight from one known place to the next. */
export function cornersAt({ outline }: Area, ms: number): readonly Corner[] {
  const next = outline.findIndex((o) => o.at > ms)
  if (next === 0) return outline[0].points
  if (next < 0) return outline[outline.length - 1].points
  const [a, b] = [outline[next - 1], outline[next]]
  const share = (ms - a.at) / (b.at - a.at)
  return a.points.map((p, i) => ({ x: p.x + (b.points[i].x - p.x) * share, y: p.y + (b.points[i].y - p.y) * share }))
}

/** The box around some corners, as shares of the picture. */
export function around(corners: readonly Corner[]) {
  const [xs, ys] = [corners.map((c) => c.x), corners.map((c) => c.y)]
  const [x, y] = [Math.min(...xs), Math.min(...ys)]
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y }
}

const percent = (share: number) => `${Math.round(share * 10_000) / 100}%`

/** What of its box belongs to the shape, in CSS; none for all of it. */
export function clipOf(shape: Area['shape'], corners: readonly Corner[]): string {
  if (shape === 'rectangle') return 'none'
  if (shape === 'ellipse') return 'ellipse(50% 50%)'
  const { x, y, width, height } = around(corners)
  const within = (value: number, start: number, length: number) => percent(length > 0 ? (value - start) / length : 0)
  return `polygon(${corners.map((c) => `${within(c.x, x, width)} ${within(c.y, y, height)}`).join(', ')})`
}

/** The outline as an SVG path in its own box of 100 by 100. */
export function pathOf(shape: Area['shape'], corners: readonly Corner[]): string {
  if (shape === 'rectangle') return 'M 0 0 H 100 V 100 H 0 Z'
  if (shape === 'ellipse') return 'M 0 50 A 50 50 0 1 0 100 50 A 50 50 0 1 0 0 50 Z'
  const { x, y, width, height } = around(corners)
  return `M ${corners.map((c) => `${((c.x - x) / (width || 1)) * 100} ${((c.y - y) / (height || 1)) * 100}`).join(' L ')} Z`
}

/** Where a box stands, in CSS. */
export const placeOf = (corners: readonly Corner[]) => {
  const { x, y, width, height } = around(corners)
  return { left: percent(x), top: percent(y), width: percent(width), height: percent(height) }
}
