import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { numberOf } from '../ui/number'

/** The line and the hosting plan, from which the desk says how long an upload takes and how often a lesson can be played. */
export function HostingPlan({ plan, changed }: { plan: Schemas['HostingPlan']; changed: (house: Schemas['HouseView']) => void }) {
  const client = useQueryClient()
  const [line, setLine] = useState(String(plan.lineBitsPerSecond / 1e6))
  const [traffic, setTraffic] = useState(String(plan.trafficBytesAMonth / 1e9))
  const save = useMutation({
    mutationFn: () => {
      const [megabits, gigabytes] = [line, traffic].map(numberOf)
      if (![megabits, gigabytes].every(Number.isFinite)) throw new Error('Type numbers, such as 10 and 2.')
      return taken(
        api.PUT('/api/house/plan', {
          body: { lineBitsPerSecond: Math.round((megabits as number) * 1e6), trafficBytesAMonth: Math.round((gigabytes as number) * 1e9) },
        }),
      )
    },
    onSuccess: (house) => {
      changed(house)
      client.invalidateQueries({ queryKey: ['deliver'] })
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    save.mutate()
  }
  const same = line === String(plan.lineBitsPerSecond / 1e6) && traffic === String(plan.trafficBytesAMonth / 1e9)
  return (
    <form onSubmit={submit} noValidate>
      <h2>Line and hosting</h2>
      <p className="text-quiet">Uploads and plays a month are worked out from these.</p>
      <div className="mt-2 flex flex-wrap items-end gap-4">
        <Field label="Upload, Mbit/s" inputMode="decimal" value={line} onChange={(e) => setLine(e.target.value)} className="max-w-[120px] font-mono" />
        <Field
          label="Traffic a month, GB"
          inputMode="decimal"
          value={traffic}
          onChange={(e) => setTraffic(e.target.value)}
          className="max-w-[120px] font-mono"
        />
        {!same && (
          <Button type="submit" disabled={save.isPending}>
            Save
          </Button>
        )}
      </div>
      {save.error && (
        <p role="alert" className="mt-1 text-brick">
          {save.error.message}
        </p>
      )}
    </form>
  )
}
