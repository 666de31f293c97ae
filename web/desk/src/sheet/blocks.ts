import type { Schemas } from '../app/api'
import type { Section } from '../lessons/useLesson'

export interface Cut {
  start: number
  end: number
}

/** A stretch of the sheet: from one picture, section or pause to the next. */
export interface Block {
  start: number
  end: number
  section?: Section
  picture?: number
  /** The cut that it lies in. */
  cut?: Cut
  cues: Schemas['Cue'][]
}

/** Where a section starts and ends: one that is not nested covers those under it. */
export function stretchOf(sections: Section[], id: string, length: number): Cut | undefined {
  const index = sections.findIndex((s) => s.id === id)
  if (index < 0) return undefined
  const { at, nested } = sections[index]
  return { start: at, end: sections.slice(index + 1).find((s) => nested || !s.nested)?.at ?? length }
}

const longestMs = 15_000

/** Lays a lesson out down the page: a block begins at each section, each picture and each edge of a cut, and at the latest after 15 s. */
export function layOut(sections: Section[], pictures: number[], cues: Schemas['Cue'][], cuts: Cut[], length: number): Block[] {
  const starts = new Map<number, Block>()
  const block = (at: number) => {
    let found = starts.get(at)
    if (!found) {
      found = { start: at, end: length, cues: [] }
      starts.set(at, found)
    }
    return found
  }
  block(0)
  for (const section of sections) if (section.at < length) block(section.at).section = section
  for (const cut of cuts) for (const edge of [cut.start, cut.end]) if (edge < length) block(edge)
  for (const picture of pictures) if (picture < length) block(picture).picture = picture
  const ordered = [...starts.values()].sort((a, b) => a.start - b.start)
  const whole: Block[] = []
  ordered.forEach((b, i) => {
    const end = ordered[i + 1]?.start ?? length
    const parts = Math.max(1, Math.ceil((end - b.start) / longestMs))
    for (let p = 0; p < parts; p++) {
      const start = b.start + Math.round(((end - b.start) * p) / parts)
      whole.push({
        ...(p === 0 ? b : { cues: [] }),
        cut: cuts.find((c) => c.start <= start && start < c.end),
        start,
        end: b.start + Math.round(((end - b.start) * (p + 1)) / parts),
        cues: [],
      })
    }
  })
  let at = 0
  for (const cue of cues) {
    while (at + 1 < whole.length && whole[at + 1].start <= cue.span.start) at++
    whole[at]?.cues.push(cue)
  }
  // A picture that shows the same as the section's start a moment later would stand twice: the section takes it.
  for (let i = 0; i + 1 < whole.length; i++) {
    const here = whole[i]
    if (here.section && here.picture === undefined) here.picture = [...pictures].reverse().find((p) => p <= here.start)
  }
  return whole
}

/** How far down the sheet a moment stands, in pixels. */
export function placeOf(sheet: HTMLElement, blocks: Block[], ms: number): number | undefined {
  const index = blocks.findLastIndex((b) => b.start <= ms)
  const row = sheet.querySelector<HTMLElement>(`[data-block="${index}"]`)
  if (!row) return undefined
  const { start, end } = blocks[index]
  return row.offsetTop + row.offsetHeight * Math.min(1, (ms - start) / Math.max(1, end - start))
}
