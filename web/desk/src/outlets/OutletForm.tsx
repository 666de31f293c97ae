import { type FormEvent, useState } from 'react'
import { Refused, type Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { GeneralName } from './GeneralName'
import { SettingsField } from './SettingsField'

export type Settings = Record<string, unknown>

export interface Entered {
  name: string
  settings: Settings
  deliverBy: string
  deliverTo: string | null
}

interface Props {
  kind: Schemas['OutletKindView']
  start: Entered
  action: string
  save: (entered: Entered) => Promise<unknown>
}

/** What is asked of an outlet of any kind: its name, the fields that its kind declares, and how things come there. The server judges it. */
export function OutletForm({ kind, start, action, save }: Props) {
  const [entered, enter] = useState(start)
  const [problem, setProblem] = useState<{ field: string; sentence: string }>()
  const [saving, setSaving] = useState(false)
  const delivery = kind.deliveries.find((d) => d.code === entered.deliverBy)
  const at = (field: string) => (problem?.field === field ? problem.sentence : undefined)
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    setSaving(true)
    setProblem(undefined)
    try {
      await save({ ...entered, deliverTo: delivery?.askedFor ? entered.deliverTo : null })
    } catch (refused) {
      const known = ['name', 'deliverBy', 'deliverTo', ...kind.fields.map((f) => f.name)]
      const field = refused instanceof Refused && refused.field && known.includes(refused.field) ? refused.field : 'name'
      setProblem({ field, sentence: (refused as Error).message })
    } finally {
      setSaving(false)
    }
  }
  return (
    <form onSubmit={submit} noValidate className="flex max-w-[560px] flex-col gap-4">
      <Field label="Name" value={entered.name} onChange={(e) => enter({ ...entered, name: e.target.value })} problem={at('name')} />
      <GeneralName kind={kind} name={entered.name} take={(name) => enter({ ...entered, name })} />
      {kind.fields.map((field) => (
        <SettingsField
          key={field.name}
          field={field}
          value={entered.settings[field.name]}
          change={(value) => enter({ ...entered, settings: { ...entered.settings, [field.name]: value } })}
          problem={at(field.name)}
        />
      ))}
      {kind.deliveries.length > 1 && (
        <fieldset className="flex flex-col gap-1.5">
          <legend className="mb-1 text-quiet">How it comes there</legend>
          {kind.deliveries.map((d) => (
            <label key={d.code} className="flex items-center gap-2">
              <input
                type="radio"
                name="deliverBy"
                className="h-4 w-4 accent-copper"
                checked={entered.deliverBy === d.code}
                onChange={() => enter({ ...entered, deliverBy: d.code })}
              />
              {d.name}
            </label>
          ))}
          {at('deliverBy') && <p className="text-brick">{at('deliverBy')}</p>}
        </fieldset>
      )}
      {delivery?.askedFor && (
        <Field
          label={delivery.askedFor}
          value={entered.deliverTo ?? ''}
          onChange={(e) => enter({ ...entered, deliverTo: e.target.value })}
          problem={at('deliverTo') ?? at('deliverBy')}
        />
      )}
      {delivery?.hint && <p className="-mt-3 text-small text-quiet">{delivery.hint}</p>}
      <p className="flex items-center gap-4">
        <Button type="submit" disabled={saving}>
          {action}
        </Button>
        <span role="status" className="text-quiet">
          {saving ? 'Saving…' : ''}
        </span>
      </p>
    </form>
  )
}
