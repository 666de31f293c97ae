import { expect, test } from 'vitest'
import { firstShown, namesOf } from '../src/tracks'

const tracks = [{ language: 'en-GB' }, { language: 'es-ES' }, { language: 'en-US' }]

test.each([
  [null, ['fr-FR'], 0],
  [null, ['fr-FR', 'es-MX'], 1],
  [null, ['en-US', 'es-ES'], 2],
  ['es-ES', ['en-GB'], 1],
  ['ES', ['en-GB'], 1],
  ['en-AU', [], 0],
])('chosen %s and asked for %j: track %i shows first', (chosen, asked, first) => {
  expect(firstShown(tracks, chosen, asked)).toBe(first)
})

test('languages are called by their own names, and two of one are told apart', () => {
  expect(namesOf([{ language: 'es-ES' }, { language: 'de' }, { language: 'de' }])).toEqual(['español', 'Deutsch', 'Deutsch 2'])
  expect(namesOf([{ language: 'es-ES' }, { language: 'es-MX' }])).toEqual(['español de España', 'español de México'])
  expect(namesOf([{ language: 'de' }, { language: 'de', draft: true }])).toEqual(['Deutsch', 'Deutsch (draft)'])
  expect(namesOf([{ language: 'not a tag' }])).toEqual(['not a tag'])
})
