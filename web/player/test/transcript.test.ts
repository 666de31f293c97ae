import { expect, test } from 'vitest'
import { asText, find, paragraphs } from '../src/captions/transcript'

const cue = (start: number, end: number, text: string) => ({
  span: { start: start * 1000, end: end * 1000, length: (end - start) * 1000 },
  text,
  id: '',
  atTop: false,
})
const section = (at: number, title: string) => ({ id: title, at: at * 1000, title, nested: false })
const shape = (all: ReturnType<typeof paragraphs>) => all.map((p) => [p.section?.title ?? null, p.cues.map((c) => c.text)])

test('a paragraph begins with each section, behind a pause, and at the end of a sentence where the last is long', () => {
  const long = `${'a word and '.repeat(24)}one.`
  const cues = [cue(0, 2, 'Good morning.'), cue(2, 4, 'This is the desk.'), cue(6.5, 8, 'Now the sailing.'), cue(9, 11, 'Choose it'), cue(11, 13, 'by hand.')]
  expect(shape(paragraphs(cues, [section(0, 'Opening'), section(9, 'Choosing')]))).toEqual([
    ['Opening', ['Good morning.', 'This is the desk.']],
    [null, ['Now the sailing.']],
    ['Choosing', ['Choose it', 'by hand.']],
  ])
  expect(shape(paragraphs([cue(0, 2, long), cue(2, 3, 'Then more'), cue(3, 4, 'of it.')], []))).toEqual([
    [null, [long]],
    [null, ['Then more', 'of it.']],
  ])
})

test('a section in which nothing is said keeps its heading, wherever it stands, and nothing is lost', () => {
  const cues = [cue(1, 2, 'One.'), cue(8, 9, 'Two.')]
  const sections = [section(0, 'First'), section(3, 'Silent'), section(5, 'Second'), section(12, 'Last')]
  const found = paragraphs(cues, sections)
  expect(shape(found)).toEqual([
    ['First', ['One.']],
    ['Silent', []],
    ['Second', ['Two.']],
    ['Last', []],
  ])
  expect(paragraphs([], [])).toEqual([])
  expect(asText('The desk', found)).toBe('The desk\n\n0:00 First\n\nOne.\n\n0:03 Silent\n\n0:05 Second\n\nTwo.\n\n0:12 Last\n')
})

test('a word is found without regard to capitals and marks on letters, at its place in the text as it stands', () => {
  expect(find('Le café du Café', 'CAFE')).toEqual([
    [3, 7],
    [11, 15],
  ])
  // Written as a letter and a mark behind it, and beyond the first 65,536 characters of Unicode.
  expect(find('cafe\u0301 \u{1F6A2} bar', 'café')).toEqual([[0, 5]])
  expect(find('\u{1F6A2} bar', 'bar')).toEqual([[3, 6]])
  expect(find('abc', '  ')).toEqual([])
  expect(find('abc', 'x')).toEqual([])
})
