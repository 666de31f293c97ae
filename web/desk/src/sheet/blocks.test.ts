import { expect, test } from 'vitest'
import { layOut } from './blocks'

const cue = (start: number) => ({ span: { start, end: start + 500, length: 500 }, text: String(start) })

test('covers the lesson without a gap, in order, with every cue once', () => {
  const cues = [0, 2_500, 14_999, 15_000, 59_000].map(cue)
  const blocks = layOut(
    [
      { id: 'a', at: 0, title: 'A', nested: false },
      { id: 'b', at: 12_345, title: 'B', nested: false },
    ],
    [0, 5_000, 40_000],
    cues,
    [{ start: 20_000, end: 31_000 }],
    60_000,
  )
  expect(blocks[0].start).toBe(0)
  expect(blocks.at(-1)?.end).toBe(60_000)
  expect(blocks.slice(1).map((b) => b.start)).toEqual(blocks.slice(0, -1).map((b) => b.end))
  expect(blocks.every((b) => b.end - b.start <= 15_000)).toBe(true)
  expect(blocks.flatMap((b) => b.cues)).toEqual(cues)
  expect(blocks.filter((b) => b.cut).map((b) => [b.start, b.end])).toEqual([[20_000, 31_000]])
  expect(blocks.filter((b) => b.section).map((b) => b.start)).toEqual([0, 12_345])
})

test('a lesson without anything is one run of blocks', () => {
  expect(layOut([], [], [], [], 20_000).map((b) => [b.start, b.end])).toEqual([
    [0, 10_000],
    [10_000, 20_000],
  ])
})
