import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { type Move, seenAt, seenAtFrame } from './viewPath'

const vectors = JSON.parse(readFileSync(new URL('../../../../tests/vectors/moves.json', import.meta.url), 'utf8')) as {
  name: string
  page: { width: number; height: number }
  moves: Move[]
  seen: number[][]
}[]

// The same file is read by the core's tests: what is drawn before rendering is what is rendered.
test.each(vectors)('$name', ({ page, moves, seen }) => {
  for (const [frame, x, y, width, height] of seen) expect(seenAtFrame(page, moves, frame), `frame ${frame}`).toEqual({ x, y, width, height })
})

test('a moment of the recording is looked up through what is kept', () => {
  const [{ page, moves }] = vectors
  const path = {
    parts: [{ page, moves, whole: { x: 0, y: 0, ...page } }],
    grid: { numerator: 30, denominator: 1, perSecond: 30 },
    kept: [
      { first: 0, count: 30, at: 0, end: 30 },
      { first: 90, count: 300, at: 30, end: 390 },
    ],
  }
  // Frame 105 of the recording is the lesson's 45th, at which it has arrived; what is cut shows what comes behind it.
  expect(seenAt(path, 0, 3500)).toEqual({ x: 200, y: 100, width: 640, height: 360 })
  expect(seenAt(path, 0, 3466)).not.toEqual({ x: 200, y: 100, width: 640, height: 360 })
  expect(seenAt(path, 0, 2000)).toEqual({ x: 0, y: 0, width: 1280, height: 720 })
  expect(seenAt(path, 0, 99_000)).toEqual({ x: 0, y: 0, width: 1280, height: 720 })
})
