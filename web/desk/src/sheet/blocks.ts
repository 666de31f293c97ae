import type { Below, Heading, Said, SheetThing } from './thing'

export interface Cut {
  start: number
  end: number
}

/** A stretch of the sheet: from one picture, section or pause to the next. */
export interface Block {
  start: number
  end: number
  /** What stands over it, and begins with it. */
  headings: Heading[]
  /** The moment whose picture stands beside it. */
  picture?: number
  /** The cut that it lies in. */
  cut?: Cut
  /** Folded to one line: where it is cut, or where nothing happens in it. */
  fold?: Cut
  /** The recording that begins with it, where there are several. */
  joint?: { fileName: string }
  /** What is said in it. */
  said: Said[]
  /** What else begins in it, below. */
  below: Below[]
}

/** What a sheet is laid out from. */
export interface Layout {
  things: SheetThing[]
  pictures: number[]
  cuts: Cut[]
  /** The recordings, one after the other. */
  joints?: { span: Cut; fileName: string }[]
  /** Where nothing changes and nobody speaks. */
  quiet: Cut[]
  /** The starts of the folds that somebody has opened. */
  opened: ReadonlySet<number>
  length: number
  /** The longest that one block may be, in milliseconds. */
  longest: number
  /** Whether a block begins at each picture. */
  everyPicture: boolean
}

/** Lays a lesson out down the page: a block begins at each heading, each picture, each fold and each edge of a cut, and at the latest after the longest. */
export function layOut({ things, pictures, cuts, joints, quiet, opened, length, longest, everyPicture }: Layout): Block[] {
  const of = <P extends SheetThing['place']>(place: P) => things.filter((t): t is SheetThing & { place: P } => t.place === place)
  const said = of('said')
  const folds = foldsOf(cuts, quiet, said, opened)
  const starts = new Set([0])
  const begin = (at: number) => at < length && starts.add(at)
  const headings = of('heading').filter((t) => t.at < length)
  for (const { at } of headings) begin(at)
  for (const { start, end } of [...cuts, ...folds]) {
    begin(start)
    begin(end)
  }
  const begun = new Map((joints ?? []).length > 1 ? (joints ?? []).map((j) => [j.span.start, j]) : [])
  for (const at of begun.keys()) begin(at)
  if (everyPicture) for (const picture of pictures) if (!within(folds, picture)) begin(picture)

  const edges = [...starts].sort((a, b) => a - b)
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
        headings: [],
        said: [],
        below: [],
        joint: p === 0 ? begun.get(from) : undefined,
      })
    }
  })
  const at = (thing: SheetThing) => thing.at
  const [above, words, below] = [spread(blocks, headings, at), spread(blocks, said, at), spread(blocks, of('below'), at)]
  blocks.forEach((block, i) => {
    Object.assign(block, { headings: above[i], said: words[i], below: below[i] })
  })
  spread(blocks, pictures, (p) => p).forEach((list, i) => {
    // A heading's own start, or what follows a fold, may lie between two pictures: then the one before shows what is seen there.
    const { fold, headings, start } = blocks[i]
    if (fold) return
    blocks[i].picture = list[0] ?? (headings.length > 0 || blocks[i - 1]?.fold ? pictures.findLast((p) => p <= start) : undefined)
  })
  return blocks
}

const shortestFold = 4_000

/** What is folded: cuts, and quiet stretches that no cut touches, but for where something is said in them. */
function foldsOf(cuts: Cut[], quiet: Cut[], said: SheetThing[], opened: ReadonlySet<number>): Cut[] {
  const free = quiet
    .filter((q) => !cuts.some((c) => c.start < q.end && c.end > q.start))
    .flatMap((q) => {
      const edges = [q.start, ...said.map((t) => t.at).filter((at) => q.start < at && at < q.end), q.end]
      return edges.slice(1).map((end, i) => ({ start: edges[i], end }))
    })
    .filter((q) => q.end - q.start >= shortestFold && !said.some((t) => t.at === q.start))
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
