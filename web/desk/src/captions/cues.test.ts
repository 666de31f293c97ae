import { expect, test } from 'vitest'
import { type Cue, changed, found, inLines, join, moved, perSecond, pieces, replaced, shifted, span, split, stepTo, withText } from './cues'

const cue = (id: string, start: number, end: number, text: string): Cue => ({ id, span: span(start, end), text, atTop: false })
const track = [cue('a', 0, 1000, 'The float is counted.'), cue('b', 1100, 2000, 'Press open.'), cue('c', 3000, 4000, 'Wait for the line.')]

test('what is set replaces what has its name, what is empty goes, and the rest stays', () => {
  expect(changed(track, { set: [cue('b', 1100, 2000, 'Press it.'), cue('c', 3000, 4000, ' ')], removed: ['a'] })).toEqual([cue('b', 1100, 2000, 'Press it.')])
  expect(changed(track, { set: [cue('a', 5000, 6000, 'Late')], removed: [] }).map((c) => c.id)).toEqual(['b', 'c', 'a'])
})

test('a caption is parted at the cursor, in time where a word begins', () => {
  const made = split(track[0], 10, 'n', [480, 700])
  expect(made?.set).toEqual([cue('a', 0, 480, 'The float'), cue('n', 480, 1000, 'is counted.')])
  expect(split(track[0], 10, 'n', [])?.set[0].span.end).toBe(476)
  expect(split(track[0], 0, 'n', [])).toBeUndefined()
  expect(split(track[0], 21, 'n', [])).toBeUndefined()
})

test('two captions become one, in lines that are not too long, and nothing is lost', () => {
  expect(join(track[1], track[2])).toEqual({
    set: [cue('b', 1100, 4000, 'Press open. Wait for the line.')].map((c) => ({ ...c, markup: undefined })),
    removed: ['c'],
  })
  const long = inLines('The first sailing that you can sell is marked against the clock')
  expect(long.split('\n').every((l) => l.length <= 42)).toBe(true)
  expect(long.replace('\n', ' ')).toBe('The first sailing that you can sell is marked against the clock')
})

test('an edge goes as far as the other edge and the ends of the lesson', () => {
  expect(moved(track[0], 'start', -50, 9000).span).toEqual(span(0, 1000))
  expect(moved(track[0], 'start', 5000, 9000).span).toEqual(span(900, 1000))
  expect(moved(track[0], 'end', -5, 9000).span).toEqual(span(0, 100))
  expect(moved(track[2], 'end', 99_000, 9000).span).toEqual(span(3000, 9000))
  expect([stepTo([100, 500], 100, 1), stepTo([100, 500], 100, -1), stepTo([100, 500], 501, -1)]).toEqual([500, undefined, 100])
})

test('all are shifted together, none before the start', () => {
  expect(shifted(track, 250).set.map((c) => c.span.start)).toEqual([250, 1350, 3250])
  expect(shifted(track.slice(1), -5000).set.map((c) => c.span.start)).toEqual([0, 1900])
  expect(shifted(track, 0).set).toEqual([])
})

test('words are found whole and by case, and written otherwise at one place or at all', () => {
  const all = { words: 'the', whole: true, cased: false }
  expect(found(track, all).map((f) => [f.cue.id, f.at])).toEqual([
    ['a', 0],
    ['c', 9],
  ])
  expect(found(track, { ...all, cased: true })).toHaveLength(1)
  expect(found(track, { words: 'open.', whole: false, cased: true })).toHaveLength(1)
  expect(found(track, { words: '(', whole: false, cased: true })).toEqual([])
  expect(replaced(track, all, 'a').set.map((c) => c.text)).toEqual(['a float is counted.', 'Wait for a line.'])
  const twice = [cue('a', 0, 1000, 'the the')]
  expect(replaced(twice, all, 'a', { cue: twice[0], at: 4 }).set[0].text).toBe('the a')
  expect(replaced([cue('a', 0, 1000, 'the')], all, '')).toEqual({ set: [{ ...cue('a', 0, 1000, ''), markup: undefined }], removed: ['a'] })
})

test('a word is marked as long as it stands as it was heard', () => {
  const unsure = [{ span: span(100, 400), text: 'flood', confidence: 0.2 }]
  const marked = (text: string) => pieces(cue('a', 0, 1000, text), unsure).filter((p) => p.confidence !== undefined)
  expect(marked('The flood, counted').map((p) => p.text)).toEqual(['flood,'])
  expect(marked('The float, counted')).toEqual([])
  expect(
    pieces(cue('a', 0, 1000, 'A\nflood'), unsure)
      .map((p) => p.text)
      .join(''),
  ).toBe('A\nflood')
})

test('how fast it is read leaves line ends out, and bold goes with the words that had it', () => {
  expect(perSecond(cue('a', 0, 2000, 'abcd\nefgh'))).toBe(4)
  const bold = { ...track[0], markup: '<b>The</b> float is counted.' }
  expect(withText(bold, bold.text)).toBe(bold)
  expect(withText(bold, 'A float').markup).toBeUndefined()
})
