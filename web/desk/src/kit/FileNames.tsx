import { useMutation } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'

/** How what is made and downloaded is named after its lesson. */
export function FileNames({ house, changed }: { house: Schemas['HouseView']; changed: (house: Schemas['HouseView']) => void }) {
  const [pattern, setPattern] = useState(house.filePattern)
  const save = useMutation({ mutationFn: () => taken(api.PUT('/api/house/names', { body: { filePattern: pattern } })), onSuccess: changed })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    save.mutate()
  }
  return (
    <form onSubmit={submit} noValidate>
      <h2>Names of files</h2>
      <p className="text-quiet">
        Made of {'{course}'}, {'{number}'}, {'{title}'}, {'{short}'}, {'{profile}'} and {'{date}'}; what Windows, macOS or Linux do not take is left out.
      </p>
      <div className="mt-2 flex items-end gap-4">
        <Field
          label="Files and folders are named"
          value={pattern}
          onChange={(e) => setPattern(e.target.value)}
          problem={save.error?.message}
          className="max-w-[320px] font-mono"
        />
        {pattern !== house.filePattern && (
          <Button type="submit" disabled={save.isPending}>
            Save
          </Button>
        )}
      </div>
      <p className="mt-1 text-small text-quiet">
        Such as <span className="font-mono">{house.fileExample}</span>
      </p>
    </form>
  )
}
