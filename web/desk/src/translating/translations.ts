import type { Schemas } from '../app/api'
import type { Document } from '../lessons/useLesson'

export type Translation = Schemas['LessonTranslation']
export type TextToTranslate = Schemas['TextView']
export type Difference = Schemas['TranslationDifference']

const translationsOf = (document: Document): Translation[] => document.translations ?? []

/** The languages into which a lesson is translated, or in which it has captions beside its own; none twice. */
export function languagesOf(document: Document): string[] {
  const { language, captions } = document
  const tracks = captions.filter((t) => t.kind === 'translation').map((t) => t.language)
  return [...new Set([...translationsOf(document).map((t) => t.language), ...tracks])].filter((l) => l !== language)
}

export const translationIn = (document: Document, language: string): Translation =>
  translationsOf(document).find((t) => t.language === language) ?? { language, texts: [], goesOut: false }

/** A lesson with a translation in place of what it had in that language. */
export function withTranslation(document: Document, translation: Translation): Document {
  const all = translationsOf(document)
  const place = all.findIndex((t) => t.language === translation.language)
  return { ...document, translations: place < 0 ? [...all, translation] : all.with(place, translation) }
}

/** A lesson without what it says of itself in a language. */
export const withoutTranslation = (document: Document, language: string): Document => ({
  ...document,
  translations: translationsOf(document).filter((t) => t.language !== language),
})

/** A lesson with what a machine or a translator made: the texts, and the captions in place of the track that they go on with. */
export function withTranslated(document: Document, { translation, track }: Schemas['TranslatedLesson']): Document {
  const texts = translation.texts.length > 0 ? withTranslation(document, translation) : document
  if (!track) return texts
  const place = texts.captions.findIndex((t) => t.id === track.id)
  return { ...texts, captions: place < 0 ? [...texts.captions, track] : texts.captions.with(place, track) }
}

/** Releases what a machine wrote in a language, texts and captions, or keeps it from learners. */
export function withDraftsOut(document: Document, language: string, goesOut: boolean): Document {
  const made = withTranslation(document, { ...translationIn(document, language), goesOut })
  const isDraft = (t: Document['captions'][number]) => t.kind === 'translation' && t.language === language && t.state === 'draft'
  return { ...made, captions: made.captions.map((t) => (isDraft(t) ? { ...t, goesOut } : t)) }
}

/** A translation with one text written by hand; an empty one is none. */
export function withText(translation: Translation, of: string, source: string, text: string): Translation {
  const others = translation.texts.filter((t) => t.of !== of)
  return { ...translation, texts: text.trim() ? [...others, { of, source, text, draft: false }] : others }
}

/** How far a translation is, in words. */
export function farInWords(translation: Translation, texts: readonly TextToTranslate[]): string {
  const found = texts.map((t) => translation.texts.find((d) => d.of === t.id))
  const there = found.filter(Boolean).length
  const drafts = found.filter((t) => t?.draft).length
  const stale = found.filter((t, i) => t && t.source !== texts[i].source).length
  return [
    `${there} of ${texts.length} texts`,
    drafts > 0 && `${drafts} by a machine, ${translation.goesOut ? 'which go out as drafts' : 'which learners do not get'}`,
    stale > 0 && `${stale} of texts that changed since`,
  ]
    .filter(Boolean)
    .join(' · ')
}

/** What became of a text, in a few words. */
export const changeWords: Record<Difference['change'], string> = {
  same: 'as it is here',
  new: 'new',
  otherwise: 'otherwise than here',
  sourceChanged: 'the original changed since',
  tooLong: 'longer than there is room',
  twice: 'stands there again, with another translation; the first counts',
  untranslated: 'not translated',
  missing: 'not in the file',
  gone: 'no longer in the lesson',
}

/** What is taken where nobody chose: all that fits what is here now. */
export const takenAtFirst = (differences: readonly Difference[]): string[] =>
  differences.filter((d) => d.change === 'new' || d.change === 'otherwise').map((d) => d.id)
