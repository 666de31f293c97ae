import { useState } from 'react'
import { useProfiles } from '../profiles/settings'
import { Button } from '../ui/Button'
import { DetailInput } from './DetailInput'
import { type DetailSet, type Field, inWords, isAsked, says, useDetailForm, withDetail } from './details'

interface Props {
  /** The codes of the details that are asked, in the order of the form. */
  codes: (field: Field) => boolean
  /** What is said here. */
  own: DetailSet
  /** What holds where nothing is said here. */
  inherited: DetailSet
  /** Where that comes from, by the code, in words such as “the house”. */
  from: (code: string) => string | undefined
  change: (how: (before: DetailSet) => DetailSet) => void
  /** What lacks, by the code. */
  missing?: Record<string, string>
}

/** Details, one below the other: what holds, where it comes from, and how it is said here. */
export function DetailRows({ codes, own, inherited, from, change, missing = {} }: Props) {
  const form = useDetailForm().data
  const profiles = useProfiles().data ?? []
  const [open, setOpen] = useState<string[]>([])
  if (!form) return null
  return (
    <dl className="grid grid-cols-[112px_minmax(0,1fr)] gap-x-3 gap-y-2">
      {form.fields
        .filter((field) => codes(field) && isAsked(field, own, inherited))
        .map((field) => {
          const [here, elsewhere] = [says(own, field.code), inWords(field, inherited, { licences: form.licences, profiles })]
          const lacks = missing[field.code]
          const editing = here || open.includes(field.code) || Boolean(lacks)
          const take = (value: unknown) => change((before) => withDetail(before, field.code, value))
          return (
            <div key={field.code} className="contents" data-testid={`detail-${field.code}`}>
              <dt className="pt-1 text-quiet">{field.label}</dt>
              <dd>
                {editing ? (
                  <DetailInput field={field} set={own} take={take} />
                ) : (
                  <p className="flex flex-wrap items-baseline gap-x-2 py-1">
                    {elsewhere ? (
                      <>
                        <span className="break-words">{elsewhere}</span>
                        <span className="text-small text-quiet">from {from(field.code) ?? 'elsewhere'}</span>
                      </>
                    ) : (
                      <span className="text-quiet">not said</span>
                    )}
                    <Button
                      look="link"
                      className="text-small"
                      aria-label={`${elsewhere ? 'Change' : 'Say'} ${field.label.toLowerCase()} here`}
                      onClick={() => setOpen((now) => [...now, field.code])}
                    >
                      {elsewhere ? 'Change here' : 'Say it'}
                    </Button>
                  </p>
                )}
                {lacks && <p className="text-small text-amber">{lacks}</p>}
                {here && !elsewhere && (field.input === 'yesNo' || field.input === 'thirdParty') && (
                  <Button look="link" className="block min-h-6 text-small" onClick={() => take(undefined)}>
                    Leave it open
                  </Button>
                )}
                {here && elsewhere && (
                  <Button
                    look="link"
                    className="block min-h-6 text-small"
                    onClick={() => {
                      setOpen((now) => now.filter((code) => code !== field.code))
                      take(undefined)
                    }}
                  >
                    As {from(field.code) ?? 'elsewhere'} says it: {elsewhere}
                  </Button>
                )}
              </dd>
            </div>
          )
        })}
    </dl>
  )
}
