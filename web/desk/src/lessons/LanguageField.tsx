import { useEffect, useId, useState } from 'react'
import type { Document } from './useLesson'

const names = new Intl.DisplayNames(['en-GB'], { type: 'language' })

/** What is offered; any other tag may be typed. */
const offered = [
  'en-GB',
  'en-US',
  'en-IE',
  'cy-GB',
  'da-DK',
  'de-AT',
  'de-CH',
  'de-DE',
  'es-ES',
  'es-MX',
  'fr-CH',
  'fr-FR',
  'it-IT',
  'nl-NL',
  'nb-NO',
  'pl-PL',
  'pt-BR',
  'pt-PT',
  'sv-SE',
  'tr-TR',
  'uk-UA',
  'ar',
  'he-IL',
]

/** The tag as it is written by custom (RFC 5646), or nothing. */
function tagOf(text: string): string | undefined {
  try {
    const [tag] = Intl.getCanonicalLocales(text.trim().replaceAll('_', '-'))
    return tag && /^[a-z]{2,3}(-[A-Z][a-z]{3})?(-([A-Z]{2}|\d{3}))?$/.test(tag) ? tag : undefined
  } catch {
    return undefined
  }
}

interface Props {
  document: Document
  edit: (change: (d: Document) => Document) => void
}

/** The language that is spoken in the lesson and that its texts are in. Captions that are in it go along. */
export function LanguageField({ document, edit }: Props) {
  const id = useId()
  const [typed, setTyped] = useState(document.language)
  useEffect(() => setTyped(document.language), [document.language])
  const tag = tagOf(typed)
  const take = () => {
    if (tag === undefined || tag === document.language) return
    edit((d) => ({ ...d, language: tag, captions: d.captions.map((t) => (t.language === d.language ? { ...t, language: tag } : t)) }))
  }
  return (
    <div className="mt-4">
      <label className="block text-quiet" htmlFor={id}>
        Language, with its region
      </label>
      <input
        id={id}
        list={`${id}-offered`}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === 'Enter' && take()}
        aria-describedby={`${id}-means`}
        aria-invalid={tag === undefined}
        className="mt-1 w-28 border border-quiet/60 bg-field px-2 py-1.5 font-mono"
      />
      <datalist id={`${id}-offered`}>
        {offered.map((o) => (
          <option key={o} value={o}>
            {names.of(o)}
          </option>
        ))}
      </datalist>{' '}
      <span id={`${id}-means`} className={tag === undefined ? 'text-brick' : ''} role={tag === undefined ? 'alert' : undefined}>
        {tag === undefined ? 'That is no language; write it such as en-GB.' : names.of(tag)}
      </span>
    </div>
  )
}
