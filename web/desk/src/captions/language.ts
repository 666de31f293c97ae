import { franc } from 'franc'

/** Shorter texts are too like several languages. In characters. */
const least = 80

/** How much of a text is looked at, in characters: more says no more. */
const most = 4000

/** The written forms of one language are not told apart by their words. */
const same: Record<string, string> = { nb: 'no', nn: 'no', hr: 'sh', bs: 'sh', sr: 'sh', id: 'ms' }

const base = (tag: string) => {
  const language = tag.split('-')[0].toLowerCase()
  return same[language] ?? language
}

/** The language that a text is in, where it is long enough to tell and is another than the one that was set; otherwise nothing. */
export function otherLanguage(text: string, set: string): string | undefined {
  const code = franc(text.slice(0, most), { minLength: least })
  if (code === 'und') return undefined
  // Three letters become the tag that BCP 47 has for it.
  const found = Intl.getCanonicalLocales(code)[0]
  return base(found) === base(set) ? undefined : found
}
