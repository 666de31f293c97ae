import { X } from 'lucide-react'
import { useId, useState } from 'react'
import type { Schemas } from '../app/api'
import { useGroups, useKnown, usePeople } from '../people/usePeople'
import { Button } from '../ui/Button'
import { TextLink } from '../ui/TextLink'

type Named = Schemas['NamedPeople']

/** People who may see a lesson, one by one by their mail addresses, or by their group. */
export function NamedPeople({ place, named, take }: { place: string; named: Named; take: (named: Named) => void }) {
  const id = useId()
  const [typed, type] = useState('')
  const people = usePeople({ find: typed })
  const accounts = useKnown(named.mails)
  const listed = useGroups()
  const groups = listed.data ?? []
  const known = (mail: string) => accounts.data?.find((p) => p.mail.toLowerCase() === mail.toLowerCase())
  const add = async () => {
    const words = typed.trim()
    if (words === '') return
    // Whoever is quick may be before the groups are there, and a group's name is no mail address.
    const all = listed.data ?? (await listed.refetch()).data ?? []
    const group = all.find((g) => g.name.toLowerCase() === words.toLowerCase())
    if (group) take({ ...named, groups: [...new Set([...named.groups, group.id])] })
    else take({ ...named, mails: [...named.mails, words] })
    type('')
  }
  const strangers = accounts.data ? named.mails.filter((m) => !known(m)) : []
  return (
    <div className="mt-1 text-small">
      <ul aria-label={`Who is named on ${place}`}>
        {named.groups.map((g) => {
          const group = groups.find((k) => k.id === g)
          return (
            <Entry key={g} name={group?.name ?? 'A group'} drop={() => take({ ...named, groups: named.groups.filter((k) => k !== g) })}>
              {group && <span className="text-quiet"> group of {group.count}</span>}
            </Entry>
          )
        })}
        {named.mails.map((mail) => (
          <Entry key={mail} name={known(mail)?.name ?? mail} drop={() => take({ ...named, mails: named.mails.filter((m) => m !== mail) })} />
        ))}
      </ul>
      <form
        className="flex gap-1"
        onSubmit={(e) => {
          e.preventDefault()
          add()
        }}
      >
        <input
          list={id}
          aria-label={`Mail address or group that may see it on ${place}`}
          placeholder="mail address or group"
          className="w-full min-w-0 border border-quiet/60 bg-field px-1 py-0.5"
          value={typed}
          onChange={(e) => type(e.target.value)}
        />
        <Button look="link" type="submit" className="text-small">
          Add
        </Button>
        <datalist id={id}>
          {groups.map((g) => (
            <option key={g.id} value={g.name}>
              group of {g.count}
            </option>
          ))}
          {people.data?.people.map((p) => (
            <option key={p.id} value={p.mail}>
              {p.name}
            </option>
          ))}
        </datalist>
      </form>
      {named.mails.length + named.groups.length === 0 && <p className="text-amber">Nobody is named yet; it stays as it was until somebody is.</p>}
      {strangers.length > 0 && (
        <p className="text-quiet">
          {strangers.join(', ')} {strangers.length === 1 ? 'has' : 'have'} no account: a mail goes there with the link, and a code opens it.
        </p>
      )}
      <p className="my-1">
        <TextLink className="inline-block py-0.5" to="/kit/people">
          People and groups
        </TextLink>
      </p>
    </div>
  )
}

function Entry({ name, drop, children }: { name: string; drop: () => void; children?: React.ReactNode }) {
  return (
    <li className="flex items-center justify-between gap-2">
      <span className="min-w-0 truncate" title={name}>
        {name}
        {children}
      </span>
      <button type="button" aria-label={`Take ${name} off`} className="grid h-6 w-6 flex-none place-items-center text-quiet hover:text-ink" onClick={drop}>
        <X size={14} />
      </button>
    </li>
  )
}
