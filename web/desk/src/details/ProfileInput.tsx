import { useId } from 'react'
import { inPieces, useProfiles } from '../profiles/settings'
import type { Field } from './details'
import { box } from './parts'

interface Props {
  field: Field
  /** The profile's identifier; empty where nobody chose one. */
  value: string
  take: (id: string | undefined) => void
}

/** One of the profiles with which a lesson becomes one file. */
export function ProfileInput({ field, value, take }: Props) {
  const id = useId()
  const profiles = useProfiles().data
  return (
    <div>
      <select aria-label={field.label} aria-describedby={`${id}-help`} className={box} value={value} onChange={(e) => take(e.target.value || undefined)}>
        <option value="">the one that plays</option>
        {profiles
          ?.filter(({ profile }) => !inPieces(profile))
          .map(({ profile }) => (
            <option key={profile.id} value={profile.id}>
              {profile.title}
            </option>
          ))}
        {value && profiles && !profiles.some(({ profile }) => profile.id === value) && <option value={value}>one that is gone</option>}
      </select>
      <p id={`${id}-help`} className="text-small text-quiet">
        {field.help}
      </p>
    </div>
  )
}
