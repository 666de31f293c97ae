import { expect, test } from 'vitest'
import type { Document } from '../lessons/useLesson'
import { type Difference, farInWords, languagesOf, takenAtFirst, translationIn, withDraftsOut, withText, withTranslated } from './translations'

const document = {
  language: 'en-GB',
  captions: [
    { id: 'a', language: 'en-GB', kind: 'captions' },
    { id: 'b', language: 'de-DE', kind: 'translation' },
  ],
  translations: [{ language: 'es', texts: [{ of: 'title', source: 'Ropes', text: 'Cuerdas', draft: true }] }],
} as unknown as Document

const texts = [
  { id: 'title', name: 'Title', source: 'Ropes and lines', lines: false, most: 500 },
  { id: 'section.1', name: 'Section at 0:00', source: 'Start', lines: false, most: 300 },
]

test('a lesson is in the languages of its texts and of its captions', () => {
  expect(languagesOf(document)).toEqual(['es', 'de-DE'])
})

test('what a machine wrote, and what it was written of before, is said', () => {
  expect(farInWords(translationIn(document, 'es'), texts)).toBe('1 of 2 texts · 1 by a machine, which learners do not get · 1 of texts that changed since')
  expect(farInWords(translationIn(document, 'fr'), texts)).toBe('0 of 2 texts')
})

test('what is written by hand is no draft, and an empty text is none', () => {
  const written = withText(translationIn(document, 'es'), 'title', 'Ropes and lines', 'Cabos')
  expect(written.texts).toEqual([{ of: 'title', source: 'Ropes and lines', text: 'Cabos', draft: false }])
  expect(withText(written, 'title', 'Ropes and lines', ' ').texts).toEqual([])
})

test('what a machine wrote goes out with its captions, or stays', () => {
  const drafted = { ...document, captions: [...document.captions, { id: 'c', language: 'es', kind: 'translation', state: 'draft' }] } as unknown as Document
  const out = withDraftsOut(drafted, 'es', true)
  expect([translationIn(out, 'es').goesOut, ...out.captions.map((t) => t.goesOut)]).toEqual([true, undefined, undefined, true])
  expect(withDraftsOut(out, 'es', false).captions[2].goesOut).toBe(false)
})

test('captions go on with their track, or are a new one at the end', () => {
  const track = { id: 'b', language: 'de-DE', kind: 'translation', hash: 'h2' } as never
  expect(withTranslated(document, { translation: { language: 'de-DE', texts: [], goesOut: false }, track }).captions.map((t) => t.hash)).toEqual([
    undefined,
    'h2',
  ])
  expect(withTranslated(document, { translation: translationIn(document, 'es'), track: { ...(track as object), id: 'c' } as never }).captions).toHaveLength(3)
})

test('what no longer fits is not taken unless somebody says so', () => {
  const difference = (id: string, change: Difference['change']) => ({ id, name: id, change, source: '' }) as Difference
  expect(takenAtFirst([difference('a', 'new'), difference('b', 'sourceChanged'), difference('c', 'otherwise'), difference('d', 'tooLong')])).toEqual(['a', 'c'])
})
