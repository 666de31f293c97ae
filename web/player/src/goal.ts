import type { Lesson } from './lesson'
import type { AnswerKnown } from './memory'

/** What a lesson stands at, as Wexel.Core.Scoring.LessonGoal judges it; both are held to tests/vectors/goal.json. */
export interface Standing {
  complete: boolean
  /** Whether it was passed or failed; null where that is not decided, or not asked. */
  passed: boolean | null
}

export function judgeGoal(goal: Lesson['goal'], watchedEnough: boolean, score: { raw: number; max: number }, answeredAll: boolean, done: boolean): Standing {
  if (score.max <= 0 && goal.rule !== 'answered') return { complete: watchedEnough, passed: null }
  const reached = score.raw * 100 >= score.max * goal.passPercent - 1e-9
  const watched = goal.rule === 'score' || watchedEnough
  switch (goal.rule) {
    case 'score':
    case 'both':
      return { complete: watched && (reached || done), passed: !reached && done ? false : reached && watched ? true : null }
    case 'answered':
      return { complete: answeredAll, passed: null }
    default:
      return { complete: watchedEnough, passed: null }
  }
}

/** Whether a question cannot be answered again. */
export const isDone = (known: AnswerKnown | undefined, tries: number) => known !== undefined && (known.right || (tries > 0 && known.tries >= tries))

const four = (value: number) => Math.round(value * 10_000) / 10_000

/** The points of a lesson. */
export function scoreOf(lesson: Lesson, answers: readonly AnswerKnown[]) {
  const share = new Map(answers.map((a) => [a.question, a.share]))
  return {
    raw: four(lesson.questions.reduce((sum, q) => sum + q.points * (share.get(q.id) ?? 0), 0)),
    max: lesson.questions.reduce((sum, q) => sum + q.points, 0),
  }
}

/** What a lesson stands at. */
export function standing(lesson: Lesson, watchedEnough: boolean, answers: readonly AnswerKnown[]): Standing {
  const known = new Map(answers.map((a) => [a.question, a]))
  return judgeGoal(
    lesson.goal,
    watchedEnough,
    scoreOf(lesson, answers),
    lesson.questions.every((q) => known.has(q.id)),
    lesson.questions.every((q) => isDone(known.get(q.id), q.tries)),
  )
}

/** What it takes, in words. */
export function goalInWords(lesson: Lesson): string {
  const seen = `${lesson.completePercent} % seen`
  const points = `${lesson.goal.passPercent} % of the points`
  const has = lesson.questions.some((q) => q.points > 0)
  switch (lesson.goal.rule) {
    case 'score':
      return `It is done with ${has ? points : seen}.`
    case 'both':
      return has ? `It is done with ${seen} and ${points}.` : `It is done at ${lesson.completePercent} %.`
    case 'answered':
      return 'It is done when every question is answered.'
    default:
      return `It is done at ${lesson.completePercent} %.`
  }
}
