import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { toast } from 'sonner'
import { api, type Refused, type Schemas, taken } from '../app/api'
import { useMe } from '../app/useMe'
import { Button } from '../ui/Button'
import { copy } from '../ui/Copyable'
import { Field } from '../ui/Field'
import { Mark } from '../ui/Mark'

/** A code from an app beside the password: switched on and off. */
export function SecondFactor() {
  const client = useQueryClient()
  const me = useMe()
  const [begun, setBegun] = useState<Schemas['SecondFactorBegun']>()
  const [codes, setCodes] = useState<string[]>()
  const changed = () => client.invalidateQueries({ queryKey: ['me'] })
  const begin = useMutation({
    mutationFn: (password: string) => taken(api.POST('/api/me/second-factor', { body: { password } })),
    onError: () => undefined,
    onSuccess: setBegun,
  })
  const confirm = useMutation({
    mutationFn: (code: string) => taken(api.PUT('/api/me/second-factor', { body: { code } })),
    onError: () => undefined,
    onSuccess: (made) => {
      setBegun(undefined)
      setCodes(made.codes)
      changed()
    },
  })
  const end = useMutation({
    mutationFn: (password: string) => taken(api.DELETE('/api/me/second-factor', { body: { password } })),
    onError: () => undefined,
    onSuccess: () => {
      setCodes(undefined)
      toast('The second factor is off.')
      changed()
    },
  })
  return (
    <section>
      <h2 className="border-b-2 border-ink pb-1">Second factor</h2>
      <p className="mt-3">
        {me.data?.secondFactor ? <Mark kind="live">On</Mark> : <Mark kind="nothing">Off</Mark>}
        <span className="text-quiet"> · a code from an authenticator app, asked for beside your password</span>
      </p>
      {codes && (
        <div className="mt-3">
          <p>Keep these recovery codes somewhere safe. Each lets you in once where the app is lost; they are shown only now.</p>
          <ul aria-label="Recovery codes" className="my-3 grid max-w-sm grid-cols-2 gap-y-1 font-mono">
            {codes.map((code) => (
              <li key={code}>{code}</li>
            ))}
          </ul>
          <Button look="link" onClick={() => copy('Recovery codes', codes.join('\n'))}>
            Copy them
          </Button>
        </div>
      )}
      {begun ? (
        <Asked key="code" label="Code that the app shows" name="code" action="Switch it on" refused={confirm.error} onSaid={confirm.mutate}>
          <p>Have your authenticator app read this picture, or type the key into it. Then type the code that it shows.</p>
          {/* The picture is white on purpose: apps read dark signs on a light ground. */}
          <img
            alt="The key as a QR code, for authenticator apps"
            src={`data:image/svg+xml;utf8,${encodeURIComponent(begun.picture)}`}
            className="my-3 size-44 bg-white"
          />
          <p className="mb-3 break-all font-mono">{begun.key}</p>
        </Asked>
      ) : me.data?.secondFactor ? (
        <Asked key="off" label="Your password" name="password" action="Switch it off" refused={end.error} onSaid={end.mutate} />
      ) : (
        <Asked key="on" label="Your password" name="password" action="Set it up" refused={begin.error} onSaid={begin.mutate} />
      )}
    </section>
  )
}

/** One thing that is asked for, and what is done with it. */
function Asked(props: {
  label: string
  name: 'code' | 'password'
  action: string
  refused: Error | null
  onSaid: (said: string) => void
  children?: React.ReactNode
}) {
  const send = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    props.onSaid(String(new FormData(event.currentTarget).get(props.name)))
  }
  return (
    <form onSubmit={send} className="mt-3 flex max-w-sm flex-col gap-3">
      {props.children}
      <Field
        label={props.label}
        name={props.name}
        type={props.name === 'password' ? 'password' : 'text'}
        inputMode={props.name === 'code' ? 'numeric' : undefined}
        autoComplete={props.name === 'password' ? 'current-password' : 'one-time-code'}
        required
        problem={(props.refused as Refused | null)?.message}
      />
      <div>
        <Button type="submit">{props.action}</Button>
      </div>
    </form>
  )
}
