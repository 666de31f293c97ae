import { element } from './element'
import { keep, kept } from './kept'
import type { Lesson } from './lesson'
import { base, firstShown, namesOf } from './tracks'

/** A text and the language that it is in, which is the lesson's own where nobody translated it. */
export interface Said {
  text: string
  language: string
}

/** What the lesson says of itself, in the language that is chosen. */
export interface Words {
  title: Said
  description: Said
  /** The titles of its sections, in order. */
  sections: readonly Said[]
}

/** The language in which a page speaks: title, description, contents and captions. */
export interface PageLanguage {
  /** Those that there are, each by its own name; the lesson's own is the first. */
  options: readonly { language: string; name: string }[]
  chosen(): string
  choose(language: string): void
  words(): Words
  /** Calls the listener whenever another language is chosen. */
  changed(listener: (language: string) => void): void
  /** Calls the listener at once, and whenever another language is chosen. */
  follow(listener: (words: Words) => void): void
}

/** The languages of which a lesson has something: its own, those in which it speaks of itself, and those of its captions; none twice. */
export function languagesOf(lesson: Lesson): { language: string; draft?: boolean }[] {
  const found: { language: string; draft?: boolean }[] = [{ language: lesson.language }]
  for (const { language, draft } of lesson.translations ?? []) if (!found.some((f) => f.language === language)) found.push({ language, draft })
  for (const { language, draft } of lesson.captions) if (!found.some((f) => base(f.language) === base(language))) found.push({ language, draft })
  return found
}

/** What a lesson says of itself in a language; what is not translated stays as it is. */
export function wordsIn(lesson: Lesson, language: string): Words {
  const translation = lesson.translations?.find((t) => t.language === language)
  const said = (translated: string | null | undefined, own: string): Said =>
    translated ? { text: translated, language } : { text: own, language: lesson.language }
  return {
    title: said(translation?.title, lesson.title),
    description: said(translation?.description, lesson.description),
    sections: lesson.sections.map((s, i) => said(translation?.sections[i], s.title)),
  }
}

/** Chosen once, for all lessons that this browser is shown; else one that the browser asks for. */
export function pageLanguage(lesson: Lesson): PageLanguage {
  const languages = languagesOf(lesson)
  const options = namesOf(languages).map((name, i) => ({ language: languages[i].language, name }))
  const changes: ((language: string) => void)[] = []
  const listeners: ((words: Words) => void)[] = []
  let chosen = languages[firstShown(languages, kept('language') ?? kept('captions'), navigator.languages)].language
  return {
    options,
    chosen: () => chosen,
    choose(language) {
      chosen = language
      keep('language', language)
      // Also for the captions of lessons to come, where this one has none of it.
      keep('captions', language)
      for (const change of changes) change(language)
      for (const listener of listeners) listener(wordsIn(lesson, language))
    },
    words: () => wordsIn(lesson, chosen),
    changed(listener) {
      changes.push(listener)
    },
    follow(listener) {
      listeners.push(listener)
      listener(wordsIn(lesson, chosen))
    },
  }
}

/** Puts a text into an element that stays. */
export function write<E extends HTMLElement>(into: E, { text, language }: Said): E {
  into.textContent = text
  into.lang = language
  return into
}

/** The choice itself; nothing where a lesson is in one language alone. */
export function languageChoice({ options, chosen, choose }: PageLanguage): HTMLElement | null {
  if (options.length < 2) return null
  const made = element('select', {}, ...options.map((o) => element('option', { value: o.language, lang: o.language }, o.name)))
  made.value = chosen()
  made.addEventListener('change', () => choose(made.value))
  return element('label', { class: 'language' }, 'Language', ' ', made)
}
