import { element } from './element'

/** How high captions are written. */
export const cueSizes = ['small', 'usual', 'large', 'largest'] as const
/** Where they stand: those under the picture cover nothing of it. */
export const cuePlaces = ['low', 'high', 'under'] as const
export type CueSize = (typeof cueSizes)[number]
export type CuePlace = (typeof cuePlaces)[number]

/** The captions of a lesson: which are shown, how high, and where. */
export interface ShownCaptions {
  names: readonly string[]
  /** Whether a machine made one, and nobody has looked through it. */
  draft(index: number): boolean
  /** Which track is shown, counted from 0; -1 for none. */
  chosen(): number
  choose(index: number): void
  /** Which track is of a language, whatever its region; -1 for none. */
  inLanguage(language: string): number
  /** Shows those of a language where captions are shown, and else the next time; nothing where there are none of it. */
  speak(language: string): void
  /** Shows none, or again those that were shown last. */
  toggle(): void
  size(): CueSize
  setSize(size: CueSize): void
  place(): CuePlace
  setPlace(place: CuePlace): void
  /** Is called whenever another track is shown, whoever chose it. */
  changed(listener: () => void): void
  /** Where captions stand that are not on the picture. */
  under: HTMLElement
}

/** A language without its region. */
export const base = (tag: string) => tag.toLowerCase().split('-')[0]

/** Which track shows first: in the language that was chosen last, else in one that the browser asks for, else the first. */
export function firstShown(tracks: readonly { language: string }[], chosen: string | null, asked: readonly string[]): number {
  for (const want of [chosen, ...asked]) {
    if (!want) continue
    const exactly = tracks.findIndex((t) => t.language.toLowerCase() === want.toLowerCase())
    if (exactly >= 0) return exactly
    const nearly = tracks.findIndex((t) => base(t.language) === base(want))
    if (nearly >= 0) return nearly
  }
  return 0
}

/** A language by its own name, with its region where there are several of it: español (España). Two tracks of one language are numbered, and a draft is
 * called one. */
export function namesOf(tracks: readonly { language: string; draft?: boolean }[]): string[] {
  const own = (tag: string) => {
    const alone = tracks.every((t) => t.language === tag || base(t.language) !== base(tag))
    try {
      return new Intl.DisplayNames([tag], { type: 'language' }).of(alone ? base(tag) : tag) ?? tag
    } catch {
      return tag
    }
  }
  return tracks.map(({ language, draft }, i) => {
    const before = tracks.slice(0, i).filter((t) => t.language === language && t.draft === draft).length
    return `${own(language)}${before > 0 ? ` ${before + 1}` : ''}${draft ? ' (draft)' : ''}`
  })
}

/** A lesson in which nothing is said in captions. */
export function noCaptions(): ShownCaptions {
  const nothing = () => undefined
  return {
    names: [],
    draft: () => false,
    chosen: () => -1,
    choose: nothing,
    inLanguage: () => -1,
    speak: nothing,
    toggle: nothing,
    size: () => 'usual',
    setSize: nothing,
    place: () => 'low',
    setPlace: nothing,
    changed: nothing,
    under: element('div', { class: 'under', hidden: true }),
  }
}
