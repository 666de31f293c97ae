import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { judgeGoal } from '../src/goal'
import type { Lesson } from '../src/lesson'

interface Vector {
  rule: Lesson['goal']['rule']
  watched: boolean
  raw: number
  max: number
  answered: boolean
  done: boolean
  complete: boolean
  passed: boolean | null
}
const vectors: Vector[] = JSON.parse(readFileSync(new URL('../../../tests/vectors/goal.json', import.meta.url), 'utf8'))

// The same file is read by the tests of Wexel.Core: one rule, two languages.
test.each(vectors)('a lesson of which $rule counts: $raw of $max, watched $watched, answered $answered, done $done', (v) => {
  const goal: Lesson['goal'] = { rule: v.rule, passPercent: 60 }
  expect(judgeGoal(goal, v.watched, { raw: v.raw, max: v.max }, v.answered, v.done)).toEqual({ complete: v.complete, passed: v.passed })
})
