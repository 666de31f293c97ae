import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { count } from '../ui/words'
import { type Group, useGroups, usePeople } from './usePeople'

/** The groups in which people are named. */
export function Groups() {
  const groups = useGroups().data ?? []
  const client = useQueryClient()
  const [name, setName] = useState('')
  const [open, setOpen] = useState<string>()
  const changed = () => Promise.all([client.invalidateQueries({ queryKey: ['people'] }), client.invalidateQueries({ queryKey: ['groups'] })])
  const add = useMutation({
    mutationFn: () => taken(api.POST('/api/groups', { body: { name, members: [] } })),
    onSuccess: (made) => {
      setName('')
      setOpen(made.id)
    },
    onSettled: changed,
  })
  const save = useMutation({
    mutationFn: ({ id, name }: Pick<Group, 'id' | 'name'>) => taken(api.PUT('/api/groups/{id}', { params: { path: { id } }, body: { name, members: null } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  const remove = useMutation({
    mutationFn: (id: string) => taken(api.DELETE('/api/groups/{id}', { params: { path: { id } } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  return (
    <section>
      <h2>Groups</h2>
      <ul className="border-t border-hairline">
        {groups.map((g) => (
          <li key={g.id} className="border-b border-hairline py-2">
            <details
              open={open === g.id}
              onToggle={(e) => {
                const isOpen = e.currentTarget.open
                setOpen((now) => (isOpen ? g.id : now === g.id ? undefined : now))
              }}
            >
              <summary className="cursor-pointer py-1">
                <b>{g.name}</b> <span className="text-quiet">{g.count === 0 ? 'nobody yet' : count(g.count, 'member')}</span>
              </summary>
              {open === g.id && <GroupForm group={g} save={save.mutate} changed={changed} remove={() => remove.mutate(g.id)} />}
            </details>
          </li>
        ))}
      </ul>
      {groups.length === 0 && <p className="py-2 text-quiet">None yet. A group is named where a lesson is released, instead of each of its people.</p>}
      <form
        className="mt-3 flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          add.mutate()
        }}
      >
        <div className="flex-1">
          <Field label="A new group" value={name} onChange={(e) => setName(e.target.value)} problem={add.error?.message} />
        </div>
        <Button type="submit" disabled={add.isPending}>
          Add
        </Button>
      </form>
    </section>
  )
}

interface GroupFormProps {
  group: Group
  save: (group: Pick<Group, 'id' | 'name'>) => void
  changed: () => Promise<unknown>
  remove: () => void
}

function GroupForm({ group, save, changed, remove }: GroupFormProps) {
  const [name, setName] = useState(group.name)
  const [find, setFind] = useState('')
  const members = usePeople({ group: group.id }).data
  const others = usePeople({ find }, find.trim() !== '').data
  const path = (person: string) => ({ params: { path: { id: group.id, person } } })
  const set = useMutation({
    mutationFn: ({ person, joins }: { person: string; joins: boolean }) =>
      taken(joins ? api.PUT('/api/groups/{id}/members/{person}', path(person)) : api.DELETE('/api/groups/{id}/members/{person}', path(person))),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  const found = find.trim() === '' ? [] : (others?.people.filter((p) => !members?.people.some((m) => m.id === p.id)).slice(0, 8) ?? [])
  return (
    <div className="mt-2 flex flex-col gap-3 pl-4">
      <Field
        label="Name"
        value={name}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => {
          if (name.trim() !== '' && name !== group.name) save({ id: group.id, name })
          else setName(group.name)
        }}
      />
      <div>
        <p className="text-quiet">Who is in it</p>
        <ul className="max-h-64 overflow-y-auto">
          {members?.people.map((p) => (
            <li key={p.id} className="flex items-baseline justify-between gap-3 py-0.5">
              <span>{p.name}</span>
              <Button look="link" className="text-small" aria-label={`Take ${p.name} out`} onClick={() => set.mutate({ person: p.id, joins: false })}>
                Take out
              </Button>
            </li>
          ))}
        </ul>
        {members && members.total > members.people.length && <p className="text-small text-quiet">and {members.total - members.people.length} more</p>}
      </div>
      <div>
        <Field label="Put somebody in" placeholder="part of a name or an address" value={find} onChange={(e) => setFind(e.target.value)} />
        <ul>
          {found.map((p) => (
            <li key={p.id} className="flex items-baseline justify-between gap-3 py-0.5">
              <span>
                {p.name} <span className="font-mono text-small text-quiet">{p.mail}</span>
              </span>
              <Button look="link" className="text-small" aria-label={`Put ${p.name} in`} onClick={() => set.mutate({ person: p.id, joins: true })}>
                Put in
              </Button>
            </li>
          ))}
        </ul>
        {find.trim() !== '' && others && found.length === 0 && <p className="text-quiet">Nobody else is called so.</p>}
      </div>
      <p>
        <Button look="link" onClick={remove}>
          Remove the group
        </Button>{' '}
        <span className="text-quiet">
          {group.namedAt === 0
            ? 'It is named nowhere.'
            : `It is named at ${count(group.namedAt, 'release')}: its people will not see ${group.namedAt === 1 ? 'it' : 'them'} any more.`}
        </span>
      </p>
    </div>
  )
}
