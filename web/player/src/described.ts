/** A stretch of a description: text, or a time that leads to its place. */
export type Stretch = string | { text: string; at: number }

/** A time as people write it, 1:20 or 1:02:30, with nothing beside it that would make it something else. */
const time = /(?<![\d:.])(?:(\d{1,2}):)?(\d{1,2}):(\d{2})(?![\d:]|\.\d)/g

/** A description as paragraphs; times within the lesson lead to their places. */
export function described(text: string, length: number): Stretch[][] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line.length > 0)
    .map((line) => stretches(line, length))
}

function stretches(line: string, length: number): Stretch[] {
  const found: Stretch[] = []
  let from = 0
  for (const match of line.matchAll(time)) {
    const [hours, minutes, seconds] = [match[1], match[2], match[3]].map((part) => Number(part ?? 0))
    const at = ((hours * 60 + minutes) * 60 + seconds) * 1000
    if (seconds > 59 || (match[1] !== undefined && minutes > 59) || at >= length) continue
    if (match.index > from) found.push(line.slice(from, match.index))
    found.push({ text: match[0], at })
    from = match.index + match[0].length
  }
  if (from < line.length) found.push(line.slice(from))
  return found
}
