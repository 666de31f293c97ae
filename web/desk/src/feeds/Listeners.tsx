import { type FormEvent, useState } from 'react'
import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { Copyable } from '../ui/Copyable'
import { Field } from '../ui/Field'
import { day } from '../ui/words'

interface Props {
  listeners: Schemas['ListenerView'][]
  add: (name: string) => Promise<unknown>
  withdraw: (id: string) => void
}

/** Who listens to a private feed: each at an address of their own, which can be withdrawn. */
export function Listeners({ listeners, add, withdraw }: Props) {
  const [name, setName] = useState('')
  const [problem, setProblem] = useState<string>()
  const submit = (event: FormEvent) => {
    event.preventDefault()
    setProblem(undefined)
    add(name).then(
      () => setName(''),
      (refused: Error) => setProblem(refused.message),
    )
  }
  return (
    <section className="flex flex-col gap-2">
      <h2>Listeners</h2>
      <p className="text-quiet">Each has an address of their own. Withdrawn, it opens nothing any more, and all others stay as they are.</p>
      <ul className="border-t border-hairline">
        {listeners.map((l) => (
          <li key={l.id} className="border-b border-hairline py-2">
            <p className="flex items-baseline gap-3">
              <b>{l.name}</b>
              <span className="text-small text-quiet">
                {l.askedAt ? `their app asked last ${day(l.askedAt)}` : `given out ${day(l.addedAt)}, not used yet`}
              </span>
              <Button look="link" className="ml-auto" aria-label={`Withdraw the address of ${l.name}`} onClick={() => withdraw(l.id)}>
                Withdraw
              </Button>
            </p>
            <Copyable label={`Page for ${l.name}`} text={l.page} open />
          </li>
        ))}
      </ul>
      {listeners.length === 0 && <p>Nobody yet.</p>}
      <form onSubmit={submit} className="flex items-end gap-3">
        <div className="flex-1">
          <Field label="Who the address is for" value={name} onChange={(e) => setName(e.target.value)} problem={problem} />
        </div>
        <Button type="submit">Give out an address</Button>
      </form>
    </section>
  )
}
