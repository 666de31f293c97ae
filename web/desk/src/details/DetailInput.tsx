import { useEffect, useId, useState } from 'react'
import { LanguageInput } from '../ui/LanguageInput'
import { AuthorInput } from './AuthorInput'
import { type Code, type DetailSet, type Field, shownInLists, tagsOf } from './details'
import { LicenceInput } from './LicenceInput'
import { ProfileInput } from './ProfileInput'
import { box, Choice } from './parts'
import { ThirdPartyInput } from './ThirdPartyInput'

interface Props {
  field: Field
  set: DetailSet
  /** Takes the detail as it is now; nothing takes it away. */
  take: (value: unknown) => void
}

/** One detail, entered as it is. */
export function DetailInput({ field, set, take }: Props) {
  const value = set[field.code as Code]
  switch (field.input) {
    case 'text':
      return <Typed field={field} value={String(value ?? '')} take={take} rows={4} />
    case 'words':
      return <Typed field={field} value={(set.tags ?? []).join(', ')} take={(text) => take(tagsOf(text))} hint="Separate them by commas." />
    case 'language':
      return <LanguageInput label={field.label} labelClass="sr-only" value={set.language ?? ''} take={take} />
    case 'yesNo':
      return <YesNo field={field} value={value as boolean | null | undefined} take={take} />
    case 'age':
      return (
        <Typed
          field={field}
          value={set.fromAge == null ? '' : String(set.fromAge)}
          take={(text) => take(/^\d+$/.test(text.trim()) ? Number(text) : undefined)}
          hint="In years; 0 for all ages."
          narrow
        />
      )
    case 'licence':
      return <LicenceInput field={field} value={set.licence ?? ''} take={take} />
    case 'thirdParty':
      return <ThirdPartyInput value={set.thirdParty ?? undefined} take={take} />
    case 'profile':
      return <ProfileInput field={field} value={String(value ?? '')} take={take} />
    case 'author':
      return <AuthorInput value={set.author ?? undefined} take={take} />
    default:
      return <Typed field={field} value={String(value ?? '')} take={take} counts={field.code === 'shortTitle'} />
  }
}

interface TypedProps {
  field: Field
  value: string
  take: (text: string) => void
  rows?: number
  hint?: string
  narrow?: boolean
  /** Whether it is shown where lists cut it off. */
  counts?: boolean
}

/** What is typed; it is taken when the field is left. */
function Typed({ field, value, take, rows, hint, narrow, counts }: TypedProps) {
  const id = useId()
  const [typed, setTyped] = useState(value)
  useEffect(() => setTyped(value), [value])
  const leave = () => typed !== value && take(typed)
  const shared = {
    id,
    'aria-label': field.label,
    'aria-describedby': hint || field.help ? `${id}-help` : undefined,
    value: typed,
    onBlur: leave,
    maxLength: rows ? 4000 : 500,
  }
  return (
    <div>
      {rows ? (
        <textarea {...shared} rows={rows} className={box} onChange={(e) => setTyped(e.target.value)} />
      ) : (
        <input
          {...shared}
          className={narrow ? box.replace('w-full', 'w-20') : box}
          onChange={(e) => setTyped(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && leave()}
        />
      )}
      {counts && <CutOff text={typed} />}
      {(hint || field.help) && (
        <p id={`${id}-help`} className="text-small text-quiet">
          {hint ?? field.help}
        </p>
      )}
    </div>
  )
}

/** Where lists would cut a title off. */
function CutOff({ text }: { text: string }) {
  const letters = [...new Intl.Segmenter().segment(text)].map((s) => s.segment)
  if (letters.length === 0) return null
  const gone = letters.slice(shownInLists).join('')
  return (
    <p role="status" className="text-small">
      <span className="font-mono">
        {letters.length} of {shownInLists}
      </span>
      {gone && (
        <>
          {' '}
          · lists show “{letters.slice(0, shownInLists - 1).join('')}…”, without <s className="text-amber">{gone}</s>
        </>
      )}
    </p>
  )
}

function YesNo({ field, value, take }: { field: Field; value: boolean | null | undefined; take: (value: boolean) => void }) {
  const group = useId()
  return (
    <fieldset className="flex flex-wrap gap-x-4">
      <legend className="sr-only">{field.label}</legend>
      <Choice group={group} chosen={value === true} choose={() => take(true)}>
        yes
      </Choice>
      <Choice group={group} chosen={value === false} choose={() => take(false)}>
        no
      </Choice>
      {field.help && <p className="w-full text-small text-quiet">{field.help}</p>}
    </fieldset>
  )
}
