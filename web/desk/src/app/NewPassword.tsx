import { useMutation } from '@tanstack/react-query'
import { type FormEvent, type ReactNode, useState } from 'react'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { TextLink } from '../ui/TextLink'
import { api, Refused, taken } from './api'

function Alone({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto mt-24 max-w-sm p-6">
      <p className="mb-6 text-title font-bold">wexel</p>
      <h1>{title}</h1>
      {children}
    </main>
  )
}

/** Has a link sent to somebody who does not know their password. */
export function ForgottenPassword({ back }: { back: () => void }) {
  const [email, setEmail] = useState('')
  const send = useMutation({ mutationFn: () => taken(api.POST('/api/sign-in/forgotten', { body: { email } })) })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    send.mutate()
  }
  return (
    <Alone title="A new password">
      <form onSubmit={submit} className="mt-4 flex flex-col gap-4">
        <Field
          label="Mail address of your account"
          type="email"
          autoComplete="username"
          required
          value={email}
          onChange={(e) => {
            setEmail(e.target.value)
            send.reset()
          }}
          problem={send.error?.message}
        />
        {send.isSuccess && <p role="status">If this address has an account, a link is on its way to it. It is good once, for 3 days.</p>}
        <p className="flex flex-wrap items-center gap-4">
          <Button type="submit" disabled={send.isPending}>
            {send.isSuccess ? 'Send another' : 'Send me a link'}
          </Button>
          <Button look="link" onClick={back}>
            Sign in with a password
          </Button>
        </p>
      </form>
    </Alone>
  )
}

/** What the link of such a mail leads to. */
export function ChoosePassword() {
  const [person, token] = location.hash.slice(1).split('.')
  const [password, setPassword] = useState('')
  const choose = useMutation({
    mutationFn: () => taken(api.POST('/api/sign-in/new-password', { body: { person: person ?? '', token: token ?? '', password } })),
  })
  if (choose.isSuccess)
    return (
      <Alone title="It is your password now">
        <p className="mt-4">
          You are signed out wherever you were signed in. <TextLink href="/sign-in">Sign in with it</TextLink>
        </p>
      </Alone>
    )
  const over = choose.error instanceof Refused && choose.error.field === 'token'
  return (
    <Alone title="Choose a password">
      <form
        className="mt-4 flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          choose.mutate()
        }}
      >
        <Field
          label="New password, of 10 characters or more"
          type="password"
          autoComplete="new-password"
          required
          value={password}
          onChange={(e) => setPassword(e.target.value)}
          problem={over ? undefined : choose.error?.message}
        />
        {(over || !token) && (
          <p role="alert" className="text-brick">
            {choose.error?.message ?? 'The link is not whole. Copy all of it from the mail.'} <TextLink href="/sign-in">Go to the sign-in</TextLink>
          </p>
        )}
        <p>
          <Button type="submit" disabled={choose.isPending}>
            Take this password
          </Button>
        </p>
      </form>
    </Alone>
  )
}
