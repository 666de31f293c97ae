import { expect, test } from 'vitest'
import type { Schemas } from '../app/api'
import { type Cue, changed, span } from './cues'
import { inWords, mended, notesOf } from './look'

const cue = (id: string, start: number, text: string): Cue => ({ id, span: span(start, start + 900), text, atTop: false })
const cues = [cue('a', 0, 'i ask the skipper'), cue('b', 1000, 'Then i and the skipper go')]
const correction = (id: string, at: number, written: string, instead: string, kind: Schemas['Correction']['kind']) => ({
  cue: id,
  at,
  length: written.length,
  written,
  instead: [instead],
  kind,
})
const look: Schemas['TextLook'] = {
  findings: [
    {
      cue: 'a',
      at: 0,
      break: 'tooShort',
      sentence: 'It is shown for 0.9 s.',
      mendWords: 'Show it longer',
      mend: { set: [{ ...cues[0], span: span(0, 1000) }, { ...cue('a+', 1000, 'x') }], removed: [] },
    },
  ],
  corrections: [
    correction('a', 0, 'i', 'I', 'capital'),
    correction('a', 10, 'skipper', 'Skipper', 'houseWord'),
    correction('b', 5, 'i', 'I', 'capital'),
    correction('b', 15, 'skipper', 'Skipper', 'houseWord'),
  ],
  left: ['b:i'],
  noSpelling: null,
}

test('what was left is not asked again, and the rest stands in order with its words', () => {
  const notes = notesOf(look, cues)
  expect(notes.map((n) => n.key)).toEqual(['a:tooShort', 'a:i', 'a:skipper', 'b:skipper'])
  expect(notes[2].sentence).toBe('“Skipper” as in the word list?')
  expect(inWords('houseWord', 2)).toBe('2 names')
  expect(notesOf(look, cues.slice(1)).map((n) => n.key)).toEqual(['b:skipper'])
})

test('all of a kind are mended at once, also several in one caption', () => {
  const words = notesOf(look, cues).filter((n) => n.kind !== 'tooShort')
  expect(changed(cues, mended(cues, words)).map((c) => c.text)).toEqual(['I ask the Skipper', 'Then i and the Skipper go'])
})

test('a word is found again where the text before it was changed, and left where it is gone', () => {
  const note = notesOf(look, cues).find((n) => n.key === 'a:skipper')
  expect(note?.mends[0].changes([cue('a', 0, 'Ask the skipper')]).set[0].text).toBe('Ask the Skipper')
  expect(note?.mends[0].changes([cue('a', 0, 'Ask them')]).set).toEqual([])
})

test('what would write a caption as it was before it was corrected is no note until it is looked at again', () => {
  const corrected = [cue('a', 0, 'Ask the skipper'), cues[1]]
  expect(notesOf(look, corrected, [], cues).map((n) => n.key)).toEqual(['a:skipper', 'b:skipper'])
  expect(notesOf(look, cues.slice(), [], cues).map((n) => n.key)).toEqual(['a:tooShort', 'a:i', 'a:skipper', 'b:skipper'])
})

test('a caption that a mend adds has a name that none has', () => {
  const ids = notesOf(look, cues)[0]
    .mends[0].changes(cues)
    .set.map((c) => c.id)
  expect(ids[0]).toBe('a')
  expect(ids[1]).toMatch(/^[0-9a-f-]{36}$/)
})

test('a word that was heard with doubt is a note as long as it stands, and none where somebody left it', () => {
  const unsure = [{ span: span(0, 400), text: 'skipper', confidence: 0.2 }]
  expect(notesOf(undefined, cues, unsure).map((n) => n.key)).toEqual(['a:skipper'])
  expect(notesOf({ findings: [], corrections: [], left: ['a:skipper'], noSpelling: null }, cues, unsure)).toEqual([])
  expect(notesOf(undefined, [cue('a', 0, 'Ask them')], unsure)).toEqual([])
})
