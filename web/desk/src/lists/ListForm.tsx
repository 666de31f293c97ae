import { type FormEvent, useState } from 'react'
import { Refused, type Schemas } from '../app/api'
import { NamedPeople } from '../deliver/NamedPeople'
import { useVisibilities } from '../people/usePeople'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'

interface Props {
  start: Schemas['ListRequest']
  action: string
  save: (list: Schemas['ListRequest']) => void
  error: Error | null
  cancel?: () => void
}

export const newList: Schemas['ListRequest'] = { name: '', visibility: 'signedIn', named: { mails: [], groups: [] } }

/** What a list is called, and who may see it. */
export function ListForm({ start, action, save, error, cancel }: Props) {
  const [list, setList] = useState(start)
  const levels = useVisibilities().data ?? []
  const problemOf = (field: string) => (error instanceof Refused && error.field === field ? error.message : undefined)
  const submit = (event: FormEvent) => {
    event.preventDefault()
    save(list)
  }
  return (
    <form onSubmit={submit} className="flex max-w-md flex-col gap-3">
      <Field label="What the list is called" value={list.name} onChange={(e) => setList({ ...list, name: e.target.value })} problem={problemOf('name')} />
      <label className="flex flex-col gap-1">
        <span className="text-quiet">Who may see the list</span>
        <select
          className="border border-quiet/60 bg-field px-2 py-1.5"
          value={list.visibility}
          onChange={(e) => setList({ ...list, visibility: e.target.value as Schemas['Visibility'] })}
        >
          {levels.map(({ level, name }) => (
            <option key={level} value={level}>
              {name}
            </option>
          ))}
        </select>
        <span className="text-small text-quiet">A lesson in it is shown to those alone who may see the lesson itself.</span>
      </label>
      {list.visibility === 'named' && (
        <NamedPeople place="the list" named={list.named ?? { mails: [], groups: [] }} take={(named) => setList({ ...list, named })} />
      )}
      {error && !problemOf('name') && <p className="text-brick">{error.message}</p>}
      <p className="flex gap-4">
        <Button type="submit">{action}</Button>
        {cancel && (
          <Button look="link" onClick={cancel}>
            Leave it
          </Button>
        )}
      </p>
    </form>
  )
}
