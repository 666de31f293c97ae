import { useEffect, useState } from 'react'
import { TextLink } from '../ui/TextLink'
import { type Field, useDetailForm } from './details'
import { box } from './parts'

const own = 'own'

/** A licence of the list, or what is allowed in one's own words. */
export function LicenceInput({ field, value, take }: { field: Field; value: string; take: (licence: string | undefined) => void }) {
  const licences = useDetailForm().data?.licences ?? []
  const known = licences.find((l) => l.id === value)
  const [words, setWords] = useState(known ? '' : value)
  const [writes, setWrites] = useState(Boolean(value) && !known)
  useEffect(() => {
    setWrites(Boolean(value) && !known)
    if (!known) setWords(value)
  }, [value, known])
  return (
    <div className="flex flex-col gap-1">
      <select
        aria-label={field.label}
        className={box}
        value={writes ? own : value}
        onChange={(e) => {
          setWrites(e.target.value === own)
          if (e.target.value !== own) take(e.target.value || undefined)
        }}
      >
        <option value="">Choose one</option>
        {licences.map((l) => (
          <option key={l.id} value={l.id}>
            {l.name}
          </option>
        ))}
        <option value={own}>In my own words</option>
      </select>
      {known?.terms && (
        <p className="text-small">
          <span className="font-mono text-quiet">{known.id}</span>{' '}
          <TextLink href={known.terms} out>
            Its terms
          </TextLink>
        </p>
      )}
      {writes && (
        <textarea
          aria-label="What others may do with it"
          rows={2}
          maxLength={4000}
          className={box}
          value={words}
          onChange={(e) => setWords(e.target.value)}
          onBlur={() => words.trim() && words !== value && take(words.trim())}
        />
      )}
    </div>
  )
}
