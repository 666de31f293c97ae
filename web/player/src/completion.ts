/** The completion rule, as Wexel.Core.Learning.Completion has it; both are held to tests/vectors/completion.json. */
export type Range = [startMs: number, endMs: number]

/** The union of ranges cut to the lesson, in order. */
export function union(ranges: readonly Range[], lengthMs: number): Range[] {
  const clip = (ms: number) => Math.min(Math.max(Math.trunc(ms), 0), lengthMs)
  const sorted = ranges
    .map(([start, end]): Range => [clip(start), clip(end)])
    .filter(([start, end]) => end > start)
    .sort((a, b) => a[0] - b[0])
  const joined: Range[] = []
  for (const [start, end] of sorted) {
    const last = joined.at(-1)
    if (last && start <= last[1]) last[1] = Math.max(last[1], end)
    else joined.push([start, end])
  }
  return joined
}

export function judge(ranges: readonly Range[], lengthMs: number, completePercent = 90) {
  const watched = union(ranges, lengthMs)
  const seenMs = watched.reduce((sum, [start, end]) => sum + end - start, 0)
  return { watched, seenMs, share: seenMs / lengthMs, complete: seenMs * 100 >= lengthMs * completePercent }
}

/** The shortest that counts as watched once more: less is where one stretch ends and the next begins. */
const shortestAgain = 1000

/** What of some stretches, in the order in which they were played, was watched before, by them or by what is known from earlier. */
export function playedAgain(known: readonly Range[], played: readonly Range[], lengthMs: number): Range[] {
  const twice: Range[] = []
  let before = union(known, lengthMs)
  for (const [start, end] of played) {
    for (const [a, b] of before) {
      const over: Range = [Math.max(a, start), Math.min(b, end)]
      if (over[1] - over[0] >= shortestAgain) twice.push(over)
    }
    before = union([...before, [start, end]], lengthMs)
  }
  return union(twice, lengthMs)
}
