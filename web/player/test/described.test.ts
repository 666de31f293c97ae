import { describe, expect, it } from 'vitest'
import { described } from '../src/described'

describe('a description', () => {
  it('is paragraphs, and empty lines are none', () => {
    expect(described('How a day begins.\n\n  And how it ends. ', 60_000)).toEqual([['How a day begins.'], ['And how it ends.']])
    expect(described('', 60_000)).toEqual([])
  })
  it.each([
    ['At 1:20 the float', 80_000],
    ['1:20', 80_000],
    ['(0:05) the start', 5000],
    ['See 1:02:30, please', 3_750_000],
    ['It begins at 12:00.', 720_000],
  ])('leads to the time in “%s”', (line, at) => {
    expect(
      described(line, 7_200_000)
        .flat()
        .filter((s) => typeof s !== 'string'),
    ).toEqual([{ text: expect.any(String), at }])
  })
  it.each([
    ['a ratio of 16:9'],
    ['1:75 is no time'],
    ['1:75:10 is none either'],
    ['a number such as 1:2:3:4'],
    ['version 1.2:30'],
    ['room 3:45.5'],
    ['behind the end at 3:00:00'],
  ])('leads nowhere for “%s”', (line) => {
    expect(described(line, 7_200_000)).toEqual([[line]])
  })
  it('loses nothing of a line', () => {
    const line = '0:00 Start, 0:30 Float, and 99:99'
    expect(
      described(line, 60_000)
        .flat()
        .map((s) => (typeof s === 'string' ? s : s.text))
        .join(''),
    ).toBe(line)
  })
})
