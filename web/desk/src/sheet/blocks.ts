import type { Schemas } from '../app/api'
import type { Section } from '../lessons/useLesson'
import type { SheetNote } from './note'

export interface Cut {
  start: number
  end: number
}

/** A stretch of the sheet: from one picture, section or pause to the next. */
export interface Block {
  start: number
  end: number
  section?: Section
  /** The moment whose picture stands beside it. */
  picture?: number
  /** The cut that it lies in. */
  cut?: Cut
  /** Folded to one line: where it is cut, or where nothing happens in it. */
  fold?: Cut
  /** The recording that begins with it, where there are several. */
  joint?: { fileName: string }
  cues: Schemas['Cue'][]
  /** What else begins in it. */
  notes: SheetNote[]
}

/** What a sheet is laid out from. */
export interface Layout {
  sections: Section[]
  pictures: number[]
  cues: Schemas['Cue'][]
  cuts: Cut[]
  /** The recordings, one after the other. */
  joints?: { span: Cut; fileName: string }[]
  /** Where nothing changes and nobody speaks. */
  quiet: Cut[]
  /** The starts of the folds that somebody has opened. */
  opened: ReadonlySet<number>
  notes: SheetNote[]
  length: number
  /** The longest that one block may be, in milliseconds. */
  longest: number
  /** Whether a block begins at each picture. */
  everyPicture: boolean
}

/** Where a section starts and ends: one that is not nested covers those under it. */
export function stretchOf(sections: Section[], id: string, length: number): Cut | undefined {
  const index = sections.findIndex((s) => s.id === id)
  if (index < 0) return undefined
  const { at, nested } = sections[index]
  return { start: at, end: sections.slice(index + 1).find((s) => nested || !s.nested)?.at ?? length }
}

/** Lays a lesson out down the page: a block begins at each section, each picture, each fold and each edge of a cut, and at the latest after the longest. */
export function layOut({ sections, pictures, cues, cuts, joints, quiet, opened, notes, length, longest, everyPicture }: Layout): Block[] {
  const folds = foldsOf(cuts, quiet, cues, opened)
  const starts = new Map<number, Section | undefined>([[0, undefined]])
  const begin = (at: number) => at < length && !starts.has(at) && starts.set(at, undefined)
  for (const section of sections) if (section.at < length) starts.set(section.at, section)
  for (const { start, end } of [...cuts, ...folds]) {
    begin(start)
    begin(end)
  }
  const begun = new Map((joints ?? []).length > 1 ? (joints ?? []).map((j) => [j.span.start, j]) : [])
  for (const at of begun.keys()) begin(at)
  if (everyPicture) for (const picture of pictures) if (!within(folds, picture)) begin(picture)

  const edges = [...starts.keys()].sort((a, b) => a - b)
  const blocks: Block[] = []
  const ahead = { cut: ordered(cuts), fold: ordered(folds) }
  edges.forEach((from, i) => {
    const until = edges[i + 1] ?? length
    const fold = ahead.fold(from)
    const parts = fold ? 1 : Math.max(1, Math.ceil((until - from) / longest - 0.001))
    const cut = ahead.cut(from)
    for (let p = 0; p < parts; p++) {
      const start = from + Math.round(((until - from) * p) / parts)
      const end = from + Math.round(((until - from) * (p + 1)) / parts)
      blocks.push({
        start,
        end,
        cut,
        fold,
        cues: [],
        notes: [],
        section: p === 0 ? starts.get(from) : undefined,
        joint: p === 0 ? begun.get(from) : undefined,
      })
    }
  })
  spread(blocks, cues, (c) => c.span.start).forEach((list, i) => {
    blocks[i].cues = list
  })
  spread(blocks, notes, (n) => n.at).forEach((list, i) => {
    blocks[i].notes = list
  })
  spread(blocks, pictures, (p) => p).forEach((list, i) => {
    // A section's own start, or what follows a fold, may lie between two pictures: then the one before shows what is seen there.
    const { fold, section, start } = blocks[i]
    if (fold) return
    blocks[i].picture = list[0] ?? (section || blocks[i - 1]?.fold ? pictures.findLast((p) => p <= start) : undefined)
  })
  return blocks
}

const shortestFold = 4_000

/** What is folded: cuts, and quiet stretches that no cut touches, but for where a caption starts in them. */
function foldsOf(cuts: Cut[], quiet: Cut[], cues: Schemas['Cue'][], opened: ReadonlySet<number>): Cut[] {
  const free = quiet
    .filter((q) => !cuts.some((c) => c.start < q.end && c.end > q.start))
    .flatMap((q) => {
      const edges = [q.start, ...cues.map((c) => c.span.start).filter((at) => q.start < at && at < q.end), q.end]
      return edges.slice(1).map((end, i) => ({ start: edges[i], end }))
    })
    .filter((q) => q.end - q.start >= shortestFold && !cues.some((c) => c.span.start === q.start))
  return [...cuts, ...free].filter((f) => !opened.has(f.start)).sort((a, b) => a.start - b.start)
}

const within = (stretches: Cut[], at: number) => stretches.some((s) => s.start <= at && at < s.end)

/** Finds the stretch at moments that are asked for in order. */
function ordered(stretches: Cut[]): (at: number) => Cut | undefined {
  let next = 0
  return (at) => {
    while (next < stretches.length && stretches[next].end <= at) next++
    return next < stretches.length && stretches[next].start <= at ? stretches[next] : undefined
  }
}

/** Gives each thing to the block in which it lies. */
function spread<T>(blocks: Block[], things: T[], at: (thing: T) => number): T[][] {
  const lists: T[][] = blocks.map(() => [])
  let index = 0
  for (const thing of [...things].sort((a, b) => at(a) - at(b))) {
    while (index + 1 < blocks.length && blocks[index + 1].start <= at(thing)) index++
    lists[index]?.push(thing)
  }
  return lists
}

/** The block at a moment; −1 before the first. */
export function blockAt(blocks: Block[], ms: number): number {
  let low = 0
  let high = blocks.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (blocks[middle].start <= ms) low = middle + 1
    else high = middle
  }
  return low - 1
}
