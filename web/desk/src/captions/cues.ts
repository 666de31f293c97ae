import type { Schemas } from '../app/api'

export type Cue = Schemas['Cue']
export type Track = Schemas['CaptionTrack']

/** What somebody did to the cues of a track; what is not named stays. */
export interface Changes {
  set: Cue[]
  removed: string[]
}

/** The shortest that a caption may become by moving an edge, in milliseconds. */
const shortestMs = 100

export const byTime = (a: Cue, b: Cue) => a.span.start - b.span.start || a.span.end - b.span.end

/** The cues with changes, as the server makes them too. */
export function changed(cues: Cue[], { set, removed }: Changes): Cue[] {
  const gone = new Set([...removed, ...set.map((c) => c.id)])
  return [...cues.filter((c) => !gone.has(c.id)), ...set.filter((c) => c.text.trim())].sort(byTime)
}

/** A caption with another text; its bold and italics go with the words that had them. */
export const withText = (cue: Cue, text: string): Cue => (text === cue.text ? cue : { ...cue, text, markup: undefined })

/** A stretch of time in whole milliseconds. */
export const span = (start: number, end: number) => ({ start: Math.round(start), end: Math.round(end), length: Math.round(end) - Math.round(start) })

/**
 * A caption parted where the cursor stands. The time is parted as the characters are, or where a word begins that was heard nearby.
 * @param words Where sounds begin and end.
 */
export function split(cue: Cue, at: number, newId: string, words: number[]): Changes | undefined {
  const [before, after] = [cue.text.slice(0, at).trim(), cue.text.slice(at).trim()]
  if (!before || !after) return undefined
  const { start, end } = cue.span
  const guess = start + ((end - start) * at) / cue.text.length
  const near = words.filter((w) => w > start + shortestMs && w < end - shortestMs).sort((a, b) => Math.abs(a - guess) - Math.abs(b - guess))[0]
  const middle = near !== undefined && Math.abs(near - guess) < 600 ? near : guess
  return {
    set: [
      { ...withText(cue, before), span: span(start, middle) },
      { id: newId, atTop: cue.atTop, text: after, span: span(middle, end) },
    ],
    removed: [],
  }
}

/** A caption with the one that follows it: one text, from the start of the first to the end of the second. */
export function join(cue: Cue, next: Cue): Changes {
  const text = `${cue.text.replaceAll('\n', ' ')} ${next.text.replaceAll('\n', ' ')}`
  return { set: [{ ...cue, markup: undefined, text: inLines(text), span: span(cue.span.start, Math.max(cue.span.end, next.span.end)) }], removed: [next.id] }
}

/** At most this many characters stand on a line; `CaptionGuidelines` in the core has where that is from. */
export const lineLength = 42

/** A text in as many lines as it needs, of two the upper one not longer than it must be. */
export function inLines(text: string): string {
  if (text.length <= lineLength) return text
  const words = text.split(' ')
  let best: { worst: number; lines: string } | undefined
  for (let i = 1; i < words.length; i++) {
    const [upper, lower] = [words.slice(0, i).join(' '), words.slice(i).join(' ')]
    const worst = Math.max(upper.length, lower.length)
    if (!best || worst < best.worst) best = { worst, lines: `${upper}\n${lower}` }
  }
  return best?.lines ?? text
}

/** A caption with one of its edges elsewhere, as far as its other edge and the lesson's length let it. */
export function moved(cue: Cue, edge: 'start' | 'end', to: number, length: number): Cue {
  const { start, end } = cue.span
  return edge === 'start'
    ? { ...cue, span: span(Math.max(0, Math.min(to, end - shortestMs)), end) }
    : { ...cue, span: span(start, Math.min(length, Math.max(to, start + shortestMs))) }
}

/** The next place among places in order, before or behind a moment. */
export function stepTo(places: number[], from: number, by: 1 | -1): number | undefined {
  return by > 0 ? places.find((p) => p > from + 1) : places.findLast((p) => p < from - 1)
}

/** All captions earlier or later; none begins before the start. */
export function shifted(cues: Cue[], byMs: number): Changes {
  const by = Math.max(byMs, -Math.min(...cues.map((c) => c.span.start)))
  return { set: by ? cues.map((c) => ({ ...c, span: span(c.span.start + by, c.span.end + by) })) : [], removed: [] }
}

/** How many characters of it are read in a second, line ends not counted. */
export const perSecond = ({ text, span: { start, end } }: Cue) => (text.replaceAll('\n', '').length * 1000) / Math.max(1, end - start)

/** What is looked for in captions. */
export interface Search {
  words: string
  whole: boolean
  cased: boolean
}

const pattern = ({ words, whole, cased }: Search) => {
  const plain = words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+')
  return new RegExp(whole ? `(?<![\\p{L}\\p{N}])${plain}(?![\\p{L}\\p{N}])` : plain, cased ? 'gu' : 'giu')
}

/** Each place where it is found, in order: the caption and where in its text. */
export function found(cues: Cue[], search: Search): { cue: Cue; at: number; length: number }[] {
  if (!search.words.trim()) return []
  const wanted = pattern(search)
  return cues.flatMap((cue) => [...cue.text.matchAll(wanted)].map((m) => ({ cue, at: m.index, length: m[0].length })))
}

/** What is found written otherwise, in all captions or at one place. */
export function replaced(cues: Cue[], search: Search, by: string, only?: { cue: Cue; at: number }): Changes {
  const wanted = pattern(search)
  const set = (only ? [only.cue] : cues)
    .map((cue) =>
      withText(
        cue,
        cue.text.replace(wanted, (m, ...rest) => (!only || rest.find((r) => typeof r === 'number') === only.at ? by : m)),
      ),
    )
    .filter((cue, i) => cue !== (only ? only.cue : cues[i]))
  return { set, removed: set.filter((c) => !c.text.trim()).map((c) => c.id) }
}

const plain = (word: string) =>
  word
    .normalize()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}']/gu, '')

/** A caption's text in pieces, those marked that the engine was not sure of and that are still as it heard them. */
export function pieces(cue: Cue, unsure: Schemas['UnsureWord'][]): { text: string; confidence?: number }[] {
  const near = unsure.filter((w) => w.span.end > cue.span.start - 50 && w.span.start < cue.span.end + 50)
  if (near.length === 0) return [{ text: cue.text }]
  const left = [...near]
  return cue.text.split(/(\s+)/).map((text) => {
    const i = left.findIndex((w) => plain(w.text) === plain(text))
    return i < 0 || !plain(text) ? { text } : { text, confidence: left.splice(i, 1)[0].confidence }
  })
}
