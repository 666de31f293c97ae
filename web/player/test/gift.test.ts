import { readFileSync } from 'node:fs'
import gift from 'gift-pegjs'
import { expect, test } from 'vitest'

const vectors = new URL('../../../tests/vectors/', import.meta.url)
const read = (name: string) => readFileSync(new URL(name, vectors), 'utf8')

interface Rich {
  text: string
}
interface Choice {
  isCorrect: boolean
  weight: number | null
  text: Rich
}
type Read = { type: string; stem: Rich; isTrue?: boolean; matchPairs?: { subquestion: Rich; subanswer: string }[] } & {
  choices?: Choice[] | { type: string; number?: number; range?: number; numberHigh?: number; numberLow?: number }
}

const counts = ({ text, isCorrect, weight }: Choice) => `${text.text}: ${weight ?? (isCorrect ? 'right' : 'wrong')}`

function asWritten(q: Read) {
  const choices = Array.isArray(q.choices) ? q.choices : []
  const number = Array.isArray(q.choices) ? undefined : q.choices
  const kind = { MC: choices.some((c) => c.isCorrect) ? 'one' : 'several', TF: 'truth', Short: 'text', Numerical: 'number', Matching: 'match' }[q.type]
  const within = number && (number.type === 'range' ? [number.number ?? 0, number.range ?? 0] : undefined)
  const between =
    number && number.type === 'high-low'
      ? [((number.numberHigh ?? 0) + (number.numberLow ?? 0)) / 2, ((number.numberHigh ?? 0) - (number.numberLow ?? 0)) / 2]
      : undefined
  const answers =
    q.type === 'TF'
      ? [String(q.isTrue)]
      : q.type === 'Matching'
        ? (q.matchPairs ?? []).map((p) => `${p.subquestion.text} - ${p.subanswer}`)
        : number
          ? [(within ?? between ?? []).join(' ± ')]
          : choices.map(counts)
  return { text: q.stem.text, kind, answers }
}

// What Wexel.Core reads of the same file is held to the same list: an independent reader of the format agrees with it.
test('an independent reader takes the list of questions as Wexel does', () => {
  const questions = (gift.parse(read('questions.gift')) as unknown as Read[]).filter((q) => q.type !== 'Category')
  expect(questions.map(asWritten)).toEqual(JSON.parse(read('questions.gift.json')))
})
