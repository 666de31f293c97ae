import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useRef } from 'react'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { newPasskey, noPasskeysBecause } from '../app/passkeys'
import { useMe } from '../app/useMe'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { day } from '../ui/words'

/** The keys that one’s devices keep, by which one signs in without a password. */
export function Passkeys() {
  const client = useQueryClient()
  const me = useMe()
  const form = useRef<HTMLFormElement>(null)
  const keys = useQuery({ queryKey: ['passkeys'], queryFn: () => taken(api.GET('/api/me/passkeys')) })
  const changed = () => client.invalidateQueries({ queryKey: ['passkeys'] })
  const add = useMutation({
    mutationFn: (said: FormData) => newPasskey(String(said.get('name') ?? ''), String(said.get('password') ?? '')),
    onError: () => undefined,
    onSuccess: () => form.current?.reset(),
    onSettled: changed,
  })
  const remove = useMutation({
    mutationFn: (id: string) => taken(api.DELETE('/api/me/passkeys/{id}', { params: { path: { id } } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  const why = noPasskeysBecause()
  const send = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    add.mutate(new FormData(event.currentTarget))
  }
  return (
    <section>
      <h2 className="border-b-2 border-ink pb-1">Passkeys</h2>
      <p className="mt-3 text-quiet">A key that your device keeps and opens by your finger, face or number. No other site can have it shown.</p>
      <ul className="mt-2">
        {keys.data?.map((k) => (
          <li key={k.id} className="flex items-baseline justify-between gap-3 border-b border-hairline py-2">
            <span>
              {k.name} <span className="text-quiet">· since {day(k.since)}</span>
            </span>
            <Button look="link" aria-label={`Remove the passkey ${k.name}`} onClick={() => remove.mutate(k.id)}>
              Remove
            </Button>
          </li>
        ))}
      </ul>
      {why ? (
        <p className="mt-3">{why}</p>
      ) : (
        <form ref={form} onSubmit={send} className="mt-3 flex max-w-sm flex-col gap-3">
          <Field label="What the device is called, to know it again" name="name" required maxLength={100} />
          {me.data?.hasPassword && <Field label="Your password" name="password" type="password" autoComplete="current-password" required />}
          {add.error && (
            <p role="alert" className="text-brick">
              {add.error.message}
            </p>
          )}
          <div>
            <Button type="submit" disabled={add.isPending}>
              Add a passkey
            </Button>
          </div>
        </form>
      )}
    </section>
  )
}
