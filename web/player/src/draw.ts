import type { Lesson } from './lesson'

/** The lot of a question, as Wexel.Core.Questions.DrawnFrom casts it; both are held to tests/vectors/draw.json. */
function lot(learner: string, question: string): number {
  let hash = 2166136261
  for (const byte of new TextEncoder().encode(`${learner}\n${question}`)) hash = Math.imul(hash ^ byte, 16777619)
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b)
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35)
  return (hash ^ (hash >>> 16)) >>> 0
}

/** The questions that somebody is not asked, where a lesson asks each learner only some; the same for the same learner. */
export function notAsked(draws: Lesson['draws'], learner: string): string[] {
  return draws.flatMap(({ of, take }) =>
    of
      .map((id) => ({ id, lot: lot(learner, id) }))
      .sort((a, b) => a.lot - b.lot || (a.id < b.id ? -1 : 1))
      .slice(take)
      .map(({ id }) => id),
  )
}
