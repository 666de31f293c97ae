import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { afterTries, type Judge, judge } from '../src/questions/judge'

interface Vector {
  name: string
  key: Judge
  answer: string[]
  share: number
  replies: string[]
}
const vectors: Vector[] = JSON.parse(readFileSync(new URL('../../../tests/vectors/scoring.json', import.meta.url), 'utf8'))

// The same file is read by the tests of Wexel.Core: one rule, two languages.
test.each(vectors.map((v) => [v.name, v] as const))('judges %s', (_, { key, answer, share, replies }) => {
  expect(judge(key, answer)).toEqual({ share, right: share === 1, replies })
})

test('an accent that is put on afterwards is the same letter', () => {
  const key = {
    responses: [{ cardinality: 'single', baseType: 'string', correct: ['caf\u00e9'] }],
    text: { capitals: false, spaces: false, slips: false },
    replies: [],
  }
  expect(judge(key as unknown as Judge, ['cafe\u0301']).right).toBe(true)
})

test('every try after the first takes its share', () => {
  expect([1, 2, 3, 9].map((attempt) => afterTries(1, 25, attempt))).toEqual([1, 0.75, 0.5, 0])
})
