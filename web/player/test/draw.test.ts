import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { notAsked } from '../src/draw'

const vectors = JSON.parse(readFileSync(`${import.meta.dirname}/../../../tests/vectors/draw.json`, 'utf8'))

test.each<{ learner: string; draws: Parameters<typeof notAsked>[0]; notAsked: string[] }>(vectors)(
  'the same is drawn as on the server: $learner',
  ({ learner, draws, notAsked: expected }) => {
    expect(notAsked(draws, learner).sort()).toEqual(expected)
  },
)
