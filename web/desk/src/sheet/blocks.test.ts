import { expect, test } from 'vitest'
import { blockAt, type Layout, layOut } from './blocks'
import type { SheetThing } from './thing'

const thing = (at: number) => ({ key: String(at), at, px: 0, show: () => null })
const said = (at: number): SheetThing => ({ ...thing(at), place: 'said', text: String(at) })
const heading = (at: number): SheetThing => ({ ...thing(at), place: 'heading' })
const below = (at: number): SheetThing => ({ ...thing(at), place: 'below' })
const plain: Layout = {
  things: [],
  pictures: [],
  cuts: [],
  quiet: [],
  opened: new Set(),
  length: 60_000,
  longest: 15_000,
  everyPicture: true,
}
const edges = (blocks: { start: number; end: number }[]) => blocks.map((b) => [b.start, b.end])

test('covers the lesson without a gap, in order, with everything that stands in it once', () => {
  const words = [0, 2_500, 14_999, 15_000, 59_000].map(said)
  const notes = [59_999, 4_000].map(below)
  for (const longest of [500, 15_000, 60_000]) {
    const blocks = layOut({
      ...plain,
      longest,
      things: [...notes, ...words, heading(0), heading(12_345), heading(12_345), heading(60_000)],
      pictures: [0, 5_000, 40_000],
      cuts: [{ start: 20_000, end: 31_000 }],
      opened: new Set([20_000]),
    })
    expect(blocks[0].start).toBe(0)
    expect(blocks.at(-1)?.end).toBe(60_000)
    expect(blocks.slice(1).map((b) => b.start)).toEqual(blocks.slice(0, -1).map((b) => b.end))
    expect(blocks.every((b) => b.end - b.start <= longest + 1)).toBe(true)
    expect(blocks.flatMap((b) => b.said)).toEqual(words)
    expect(blocks.flatMap((b) => b.below.map((t) => t.at))).toEqual([4_000, 59_999])
    expect(blocks.flatMap((b) => b.headings.map((t) => [b.start, t.at]))).toEqual([0, 12_345, 12_345].map((at) => [at, at]))
    const cut = blocks.filter((b) => b.cut)
    expect([cut[0].start, cut.at(-1)?.end]).toEqual([20_000, 31_000])
    for (const [i, b] of blocks.entries()) expect([blockAt(blocks, b.start), blockAt(blocks, b.end - 1)]).toEqual([i, i])
  }
})

test('a lesson without anything is one run of blocks', () => {
  expect(edges(layOut({ ...plain, length: 20_000 }))).toEqual([
    [0, 10_000],
    [10_000, 20_000],
  ])
})

test('what is cut and what is quiet is folded to one block until somebody opens it', () => {
  const sheet = { ...plain, pictures: [0, 10_000, 20_000, 30_000], cuts: [{ start: 5_000, end: 25_000 }], quiet: [{ start: 34_000, end: 55_000 }] }
  const folded = layOut(sheet)
  expect(edges(folded.filter((b) => b.fold))).toEqual([
    [5_000, 25_000],
    [34_000, 55_000],
  ])
  expect(folded.find((b) => b.start === 5_000)?.cut).toBeDefined()
  const opened = layOut({ ...sheet, opened: new Set([5_000, 34_000]) })
  expect(opened.some((b) => b.fold)).toBe(false)
  expect(opened.filter((b) => b.cut).map((b) => b.start)).toEqual([5_000, 10_000, 20_000])
})

test('nothing that is said is folded away as quiet, nor what a cut touches', () => {
  const quiet = [
    { start: 10_000, end: 20_000 },
    { start: 30_000, end: 40_000 },
  ]
  const blocks = layOut({ ...plain, quiet, things: [said(10_000), said(18_000)], cuts: [{ start: 39_000, end: 45_000 }], opened: new Set([39_000]) })
  expect(blocks.filter((b) => b.fold && b.said.length > 0)).toEqual([])
  expect(edges(layOut({ ...plain, quiet, things: [said(17_000)] }).filter((b) => b.fold))).toEqual([
    [10_000, 17_000],
    [30_000, 40_000],
  ])
})

test('an hour of single frames with five hundred cuts is laid out', () => {
  const cuts = Array.from({ length: 500 }, (_, i) => ({ start: i * 7_000 + 1_000, end: i * 7_000 + 1_500 }))
  const blocks = layOut({ ...plain, cuts, length: 3_600_000, longest: 1000 / 30, everyPicture: false })
  expect(blocks.filter((b) => b.fold)).toHaveLength(500)
  expect(blocks.length).toBeGreaterThan(99_000)
})
