import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { Page, Waiting } from '../ui/Page'
import { count } from '../ui/words'
import { type People, usePeople } from './usePeople'

type Group = Schemas['GroupEntry']

/** Who can sign in, and the groups in which they are named. */
export function PeoplePage() {
  const people = usePeople()
  return (
    <Page title="People" about="Who can sign in, and the groups in which they are named as those who may see a lesson.">
      <Waiting query={people}>
        {people.data && (
          <div className="grid gap-x-12 gap-y-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,480px)]">
            <Everybody people={people.data} />
            <Groups people={people.data} />
          </div>
        )}
      </Waiting>
    </Page>
  )
}

function Everybody({ people }: { people: People }) {
  const groupsOf = (id: string) => people.groups.filter((g) => g.members.includes(id)).map((g) => g.name)
  return (
    <section>
      <h2>
        People <span className="font-normal text-quiet">· {people.people.length}</span>
      </h2>
      <table className="w-full border-t border-hairline">
        <thead className="sr-only">
          <tr>
            <th>Name</th>
            <th>Mail address</th>
            <th>What they are</th>
          </tr>
        </thead>
        <tbody>
          {people.people.map((p) => (
            <tr key={p.id} className="border-b border-hairline align-top">
              <td className="py-1.5 pr-3 font-bold">{p.name}</td>
              <td className="py-1.5 pr-3 font-mono text-small">{p.mail}</td>
              <td className="py-1.5 text-quiet">
                {[p.isGuest ? 'guest, by a code' : p.makesLessons ? 'trainer' : 'learner', ...groupsOf(p.id), p.isDisabled ? 'can sign in no more' : '']
                  .filter(Boolean)
                  .join(', ')}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

function Groups({ people }: { people: People }) {
  const client = useQueryClient()
  const [name, setName] = useState('')
  const [open, setOpen] = useState<string>()
  const changed = () => client.invalidateQueries({ queryKey: ['people'] })
  const add = useMutation({
    mutationFn: () => taken(api.POST('/api/groups', { body: { name, members: [] } })),
    onSuccess: (made) => {
      setName('')
      setOpen(made.id)
    },
    onSettled: changed,
  })
  const save = useMutation({
    mutationFn: ({ id, ...body }: Pick<Group, 'id' | 'name' | 'members'>) => taken(api.PUT('/api/groups/{id}', { params: { path: { id } }, body })),
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
        {people.groups.map((g) => (
          <li key={g.id} className="border-b border-hairline py-2">
            <details open={open === g.id} onToggle={(e) => setOpen((now) => (e.currentTarget.open ? g.id : now === g.id ? undefined : now))}>
              <summary className="cursor-pointer py-1">
                <b>{g.name}</b> <span className="text-quiet">{g.members.length === 0 ? 'nobody yet' : count(g.members.length, 'member')}</span>
              </summary>
              <GroupForm group={g} people={people} save={save.mutate} remove={() => remove.mutate(g.id)} />
            </details>
          </li>
        ))}
      </ul>
      {people.groups.length === 0 && <p className="py-2 text-quiet">None yet. A group is named where a lesson is released, instead of each of its people.</p>}
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
  people: People
  save: (group: Pick<Group, 'id' | 'name' | 'members'>) => void
  remove: () => void
}

function GroupForm({ group, people, save, remove }: GroupFormProps) {
  const [name, setName] = useState(group.name)
  const [members, setMembers] = useState(group.members)
  return (
    <div className="mt-2 flex flex-col gap-3 pl-4">
      <Field
        label="Name"
        value={name}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => {
          if (name.trim() !== '' && name !== group.name) save({ id: group.id, name, members })
          else setName(group.name)
        }}
      />
      <fieldset>
        <legend className="text-quiet">Who is in it</legend>
        <div className="max-h-72 overflow-y-auto">
          {people.people.map((p) => (
            <label key={p.id} className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="accent-copper"
                checked={members.includes(p.id)}
                onChange={(e) => {
                  const next = e.target.checked ? [...members, p.id] : members.filter((m) => m !== p.id)
                  setMembers(next)
                  save({ id: group.id, name: group.name, members: next })
                }}
              />
              {p.name}
            </label>
          ))}
        </div>
      </fieldset>
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
