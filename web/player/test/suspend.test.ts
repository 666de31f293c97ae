import { expect, test } from 'vitest'
import { judge, type Range, union } from '../src/completion'
import { mostCharacters, pack, unpack } from '../src/runtimes/suspend'

const hour = 3_600_000

/** The same numbers each time: a linear congruential generator, of which property tests need no more. */
function numbers(seed: number) {
  let state = seed
  return (below: number) => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648
    return state % below
  }
}

/** Whether each inner range lies in one of the outer ones; both in order. */
function within(inner: Range[], outer: Range[]) {
  let at = 0
  return inner.every(([a, b]) => {
    while (at < outer.length && outer[at][1] < b) at++
    return at < outer.length && outer[at][0] <= a && b <= outer[at][1]
  })
}

test('a few ranges come back exactly', () => {
  const next = numbers(7)
  for (let round = 0; round < 200; round++) {
    const length = 1000 + next(2 * hour)
    const ranges = Array.from({ length: 1 + next(40) }, (): Range => {
      const start = next(length)
      return [start, start + next(length - start) + 1]
    })
    expect(unpack(pack(ranges, length), length)?.watched).toEqual(union(ranges, length))
  }
})

// SCORM 1.2 Run-Time Environment, section 3.4.4: cmi.suspend_data is a CMIString4096.
test.each([1, 3, 12, 30])('always fits the 4,096 characters, and never counts what was not watched: %i hours', (hours) => {
  const next = numbers(hours)
  const length = hours * hour
  const ranges: Range[] = []
  for (let at = 0; at < length; at += 4000 + next(4000)) ranges.push([at, Math.min(at + 2000 + next(1900), length)])
  const text = pack(ranges, length)
  expect(text.length).toBeLessThanOrEqual(mostCharacters)
  expect(text).toMatch(/^[\x20-\x7e]*$/)
  const back = unpack(text, length)?.watched as Range[]
  expect(within(back, union(ranges, length))).toBe(true)
})

test('a lesson of ten hours that is watched in a hundred pieces keeps its verdict', () => {
  const length = 10 * hour
  const ranges = Array.from({ length: 100 }, (_, i): Range => [i * 360_000, i * 360_000 + 325_000])
  const back = unpack(pack(ranges, length), length)?.watched as Range[]
  expect(judge(back, length).complete).toBe(true)
  expect(judge(back, length).seenMs).toBe(judge(ranges, length).seenMs)
})

test('the end of a lesson is kept in whatever grid', () => {
  const length = hour + 17
  const ranges = Array.from({ length: 3000 }, (_, i): Range => [i * 1000, i * 1000 + 500])
  expect(unpack(pack([...ranges, [3_000_000, length]], length), length)?.watched.at(-1)?.[1]).toBe(length)
})

test('nothing watched is a short text too', () => {
  expect(unpack(pack([], 5000), 5000)).toEqual({ watched: [], answers: [], surveyed: false })
})

test.each([
  '',
  'w2;1;1.2',
  'w3;1;1.2',
  'w1;1;1.2;q.1.0.1',
  'w1',
  'w1;1',
  'w1;1;1',
  'w1;1;1.2.3',
  'w1;-1;1.2',
  'w1;1;1.2;3',
  '{"watched":[]}',
  'w1;1;a.b.',
  'w1;zzzzzzzzzz;1.1',
  '\u0000',
])('what another version wrote is not taken for ranges: %j', (text) => expect(unpack(text, 5000)).toBeUndefined())

test('ranges past the lesson’s end are cut', () => {
  expect(unpack('w1;1;0.zzzzzz', 5000)?.watched).toEqual([[0, 5000]])
})

const answer = (i: number, ...values: string[]) => ({ question: `q${i}`, tries: 1 + (i % 3), share: (i % 5) / 4, right: i % 5 === 4, answer: values })

test('answers come back as they were given, whatever stands in them', () => {
  const answers = [answer(1, 'a', 'b'), answer(2, 'x.y~z;%;ü “€”'), answer(3), answer(4, 'p1 r2', 'p2 r1'), { ...answer(5, '1'), share: 0.3333 }]
  const text = pack([[0, 10]], 5000, answers)
  expect(text).toMatch(/^w2;[\x20-\x7e]*$/)
  expect(unpack(text, 5000)).toEqual({ watched: [[0, 10]], answers, surveyed: false })
})

test('60 questions and 400 ranges share the room: points and tries are exact, and nothing counts as watched that was not', () => {
  const next = numbers(60)
  const length = 2 * hour
  const ranges = Array.from({ length: 400 }, (_, i): Range => [i * 18_000 + next(5000), i * 18_000 + 5000 + next(12_000)])
  const answers = Array.from({ length: 60 }, (_, i) => ({ ...answer(i, i % 2 ? 'b' : 'a long answer, '.repeat(30)), question: `q${i}` }))
  const text = pack(ranges, length, answers)
  expect(text.length).toBeLessThanOrEqual(mostCharacters)
  const back = unpack(text, length)
  expect(within(back?.watched ?? [], union(ranges, length))).toBe(true)
  expect(judge(back?.watched ?? [], length).share).toBeGreaterThan(judge(ranges, length).share - 0.03)
  expect(back?.answers.map(({ answer: _, ...known }) => known)).toEqual(answers.map(({ answer: _, ...known }) => known))
  // What is short stays; the long texts are what is left out.
  expect(back?.answers.filter((a) => a.answer.length > 0).length).toBeGreaterThanOrEqual(30)
})

test('an answer of which half was kept is given again', () => {
  expect(unpack('w2;1;0.a;q1.1.0.0.%E2%8~q2.1.7ps.1.b', 5000)?.answers).toEqual([{ question: 'q2', tries: 1, share: 1, right: true, answer: ['b'] }])
})
