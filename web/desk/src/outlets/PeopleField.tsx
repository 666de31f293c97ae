import { useId } from 'react'
import type { Schemas } from '../app/api'
import { usePeople } from '../people/usePeople'
import { Button } from '../ui/Button'

interface Props {
  field: Schemas['OutletField']
  value: string[]
  change: (value: string[]) => void
  problem?: string
}

/** People who make lessons, chosen one by one. */
export function PeopleField({ field, value, change, problem }: Props) {
  const id = useId()
  const trainers = usePeople({ trainers: true }).data?.people ?? []
  const nameOf = (person: string) => trainers.find((p) => p.id === person)?.name ?? 'somebody who makes no lessons any more'
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {field.label}
      </label>
      <ul>
        {value.map((person) => (
          <li key={person} className="flex items-baseline justify-between gap-3 border-b border-hairline py-1">
            {nameOf(person)}
            <Button look="link" aria-label={`Take ${nameOf(person)} out`} onClick={() => change(value.filter((v) => v !== person))}>
              Take out
            </Button>
          </li>
        ))}
      </ul>
      <select
        id={id}
        className="border border-quiet/60 bg-field px-2 py-1.5"
        value=""
        onChange={(e) => e.target.value && change([...value, e.target.value])}
        aria-describedby={`${id}-more`}
      >
        <option value="">Add somebody who makes lessons</option>
        {trainers
          .filter((p) => !value.includes(p.id))
          .map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
      </select>
      <p id={`${id}-more`} className={problem ? 'text-brick' : 'text-small text-quiet'}>
        {problem ?? field.help}
      </p>
    </div>
  )
}
