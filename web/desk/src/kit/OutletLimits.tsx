import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { numberOf } from '../ui/number'

type Outlet = Schemas['OutletEntry']

const scales = { mostBytes: 1e6, mostLength: 60_000, mostBitsPerSecond: 1000 } as const
const labels = { mostBytes: 'Largest file, MB', mostLength: 'Longest lesson, minutes', mostBitsPerSecond: 'Highest rate, kbit/s' } as const
type Name = keyof typeof scales

/** The most that an outlet takes: a file that is over it is stopped before it goes there. */
export function OutletLimits({ outlet }: { outlet: Outlet }) {
  const client = useQueryClient()
  const shown = (name: Name) => (outlet.limits[name] === null ? '' : String((outlet.limits[name] as number) / scales[name]))
  const [typed, type] = useState({ mostBytes: shown('mostBytes'), mostLength: shown('mostLength'), mostBitsPerSecond: shown('mostBitsPerSecond') })
  const save = useMutation({
    mutationFn: () => {
      const value = (name: Name) => {
        if (typed[name].trim() === '') return null
        const number = numberOf(typed[name])
        if (!Number.isFinite(number)) throw new Error(`“${typed[name]}” is no number. Leave a field empty for no limit.`)
        return Math.round(number * scales[name])
      }
      return taken(
        api.PUT('/api/outlets/{id}/limits', {
          params: { path: { id: outlet.id } },
          body: { mostBytes: value('mostBytes'), mostLength: value('mostLength'), mostBitsPerSecond: value('mostBitsPerSecond') },
        }),
      )
    },
    onSuccess: () => Promise.all(['outlets', 'deliver'].map((key) => client.invalidateQueries({ queryKey: [key] }))),
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    save.mutate()
  }
  const names = Object.keys(labels) as Name[]
  const set = names.filter((name) => outlet.limits[name] !== null)
  const same = names.every((name) => typed[name] === shown(name))
  return (
    <details className="mt-1">
      <summary className="cursor-pointer text-quiet">
        {set.length === 0 ? 'no limits' : set.map((name) => `${labels[name]}: ${shown(name)}`).join(' · ')}
      </summary>
      <form onSubmit={submit} noValidate className="mt-1 flex flex-wrap items-end gap-4">
        {names.map((name) => (
          <Field
            key={name}
            label={labels[name]}
            aria-label={`${labels[name]}, for ${outlet.name}`}
            inputMode="decimal"
            placeholder="none"
            value={typed[name]}
            onChange={(e) => type((now) => ({ ...now, [name]: e.target.value }))}
            className="max-w-[120px] font-mono"
          />
        ))}
        {!same && (
          <Button type="submit" disabled={save.isPending}>
            Save the limits
          </Button>
        )}
      </form>
      {save.error && (
        <p role="alert" className="mt-1 text-brick">
          {save.error.message}
        </p>
      )}
    </details>
  )
}
