import { type Range, union } from './completion'

/** What SCORM 1.2 lets a lesson keep in `cmi.suspend_data`: a CMIString4096 (Run-Time Environment, section 3.4.4). */
export const mostCharacters = 4096

const version = 'w1'
const written = /^w1;([0-9a-z]{1,9});((?:[0-9a-z]{1,9}\.[0-9a-z]{1,9}(?:\.[0-9a-z]{1,9}\.[0-9a-z]{1,9})*)?)$/

/**
 * The watched ranges as a short text: version, grid in milliseconds, then for each range the gap before it and its length in grid
 * units, all to base 36. Ranges are exact while they fit; then the grid gets coarser, and a range only ever gets shorter, so that
 * nothing counts as watched that was not.
 */
export function pack(watched: readonly Range[], lengthMs: number): string {
  const ranges = union(watched, lengthMs)
  for (let grid = 1; ; grid = grid === 1 ? 100 : grid * 2) {
    let from = 0
    const numbers: string[] = []
    for (const [start, end] of ranges) {
      const first = Math.ceil(start / grid)
      const last = end === lengthMs ? Math.ceil(end / grid) : Math.floor(end / grid)
      if (last <= first) continue
      numbers.push((first - from).toString(36), (last - first).toString(36))
      from = last
    }
    const text = `${version};${grid.toString(36)};${numbers.join('.')}`
    if (text.length <= mostCharacters) return text
  }
}

/** The ranges in such a text; undefined where another version, or something else altogether, wrote it. */
export function unpack(text: string, lengthMs: number): Range[] | undefined {
  const read = written.exec(text)
  if (!read) return undefined
  const unit = Number.parseInt(read[1], 36)
  const numbers = read[2] === '' ? [] : read[2].split('.').map((n) => Number.parseInt(n, 36) * unit)
  const ranges: Range[] = []
  let from = 0
  for (let i = 0; i + 1 < numbers.length; i += 2) {
    const start = from + numbers[i]
    from = start + numbers[i + 1]
    ranges.push([start, from])
  }
  return union(ranges, lengthMs)
}
