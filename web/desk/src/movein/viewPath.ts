import type { Schemas } from '../app/api'

export type ViewPath = Schemas['ViewPathView']
export type Rect = Schemas['PictureRect']
export type Move = Schemas['ViewMove']

/** Times come in whole milliseconds, frames do not: a time this little before a frame means that frame. */
const toleranceMs = 1

/** What is seen of the page at a frame of the lesson: the same reckoning as the renderer's, to the pixel. */
export function seenAtFrame(page: { width: number; height: number }, moves: Move[], frame: number): Rect {
  const move = moves.findLast((m) => m.first <= frame)
  if (!move) return { x: 0, y: 0, width: page.width, height: page.height }
  const share = Math.max(0, Math.min(1, (frame - move.first) / move.frames))
  const eased = share * share * (3 - 2 * share)
  const between = (from: number, to: number) => Math.floor(from + (to - from) * eased + 0.5)
  return {
    x: between(move.from.x, move.to.x),
    y: between(move.from.y, move.to.y),
    width: between(move.from.width, move.to.width),
    height: between(move.from.height, move.to.height),
  }
}

/** What is seen of a recording at a moment of them all; where it is cut, that of the next moment that is kept. */
export function seenAt(path: ViewPath, part: number, ms: number): Rect {
  const frame = Math.floor(((ms + toleranceMs) * path.grid.numerator) / (1000 * path.grid.denominator))
  const kept = path.kept.find((k) => frame < k.first + k.count) ?? path.kept.at(-1)
  return seenAtFrame(path.parts[part].page, path.parts[part].moves, kept ? kept.at + Math.max(0, Math.min(frame - kept.first, kept.count - 1)) : 0)
}
