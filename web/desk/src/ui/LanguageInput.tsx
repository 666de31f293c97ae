import { useEffect, useId, useState } from 'react'

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

/** What a language is called, with its region. */
export const languageName = (tag: string) => names.of(tag) ?? tag

interface Props {
  label: string
  value: string
  take: (tag: string) => void
  labelClass?: string
}

/** A language with its region: one of those that are offered, or any other tag. It is taken when the field is left. */
export function LanguageInput({ label, value, take, labelClass = 'block text-quiet' }: Props) {
  const id = useId()
  const [typed, setTyped] = useState(value)
  useEffect(() => setTyped(value), [value])
  const tag = tagOf(typed)
  const leave = () => tag !== undefined && tag !== value && take(tag)
  return (
    <div>
      <label className={labelClass} htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        list={`${id}-offered`}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={leave}
        onKeyDown={(e) => e.key === 'Enter' && leave()}
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
