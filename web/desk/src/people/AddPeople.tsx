import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, Refused, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { PeopleFile } from './PeopleFile'
import { type Role, roles } from './roles'

const nobody = { name: '', mail: '', role: 'learner' as Role, groups: '' }

/** Adding somebody by hand, or many from a list. */
export function AddPeople() {
  const client = useQueryClient()
  const [person, setPerson] = useState(nobody)
  const [invite, setInvite] = useState(true)
  const add = useMutation({
    mutationFn: () => taken(api.POST('/api/people', { body: { ...person, groups: person.groups.split(';'), invite } })),
    onSuccess: () => {
      toast.success(invite ? `${person.name} is added; a mail is on its way to ${person.mail}.` : `${person.name} is added.`)
      setPerson(nobody)
    },
    onSettled: () => {
      client.invalidateQueries({ queryKey: ['people'] })
      client.invalidateQueries({ queryKey: ['groups'] })
    },
  })
  const problemOf = (field: string) => (add.error instanceof Refused && add.error.field === field ? add.error.message : undefined)
  const field = (name: 'name' | 'mail' | 'groups', label: string) => (
    <Field label={label} value={person[name]} onChange={(e) => setPerson({ ...person, [name]: e.target.value })} problem={problemOf(name)} />
  )
  return (
    <section className="mb-8">
      <h2>Add people</h2>
      <form
        className="mt-2 flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          add.mutate()
        }}
      >
        {field('name', 'Name')}
        {field('mail', 'Mail address')}
        <label className="flex flex-col gap-1">
          <span className="text-quiet">What they do</span>
          <select
            className="border border-quiet/60 bg-field px-2 py-1.5"
            value={person.role}
            onChange={(e) => setPerson({ ...person, role: e.target.value as Role })}
          >
            {roles.map((r) => (
              <option key={r.role} value={r.role}>
                {r.word}: {r.may}
              </option>
            ))}
          </select>
        </label>
        {field('groups', 'Groups, parted by semicolons (may be empty)')}
        <label className="flex items-baseline gap-2">
          <input type="checkbox" className="accent-copper" checked={invite} onChange={(e) => setInvite(e.target.checked)} />
          Send a mail that lets them choose a password
        </label>
        {add.error && !['name', 'mail', 'groups'].some(problemOf) && <p className="text-brick">{add.error.message}</p>}
        <p>
          <Button type="submit" disabled={add.isPending}>
            Add
          </Button>
        </p>
      </form>
      <PeopleFile />
    </section>
  )
}
