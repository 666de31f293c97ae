import { useMutation } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { api, taken } from './api'
import { wantedPage } from './ownPath'

/** Signing in by a code that is sent by mail, for people who are named at a lesson and have no account. */
export function SignInByCode({ back }: { back: () => void }) {
  const [email, setEmail] = useState('')
  const [code, setCode] = useState('')
  const send = useMutation({ mutationFn: () => taken(api.POST('/api/sign-in/code', { body: { email } })) })
  const open = useMutation({
    mutationFn: () => taken(api.POST('/api/sign-in/code/typed', { body: { email, code } })),
    onSuccess: () => location.assign(wantedPage() ?? '/channel'),
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (send.isSuccess) open.mutate()
    else send.mutate()
  }
  return (
    <main className="mx-auto mt-24 max-w-sm p-6">
      <p className="mb-6 text-title font-bold">wexel</p>
      <h1>Sign in by a code</h1>
      <form onSubmit={submit} className="mt-4 flex flex-col gap-4">
        <Field
          label="Mail address to which the lesson was sent"
          type="email"
          autoComplete="email"
          required
          value={email}
          onChange={(e) => {
            setEmail(e.target.value)
            send.reset()
          }}
          problem={send.error?.message}
        />
        {send.isSuccess && (
          <>
            <p role="status">If a lesson is open to this address, a code of six digits is on its way. It is good for 15 minutes.</p>
            <Field
              label="Code"
              inputMode="numeric"
              autoComplete="one-time-code"
              autoFocus
              required
              value={code}
              onChange={(e) => setCode(e.target.value)}
              problem={open.error?.message}
            />
          </>
        )}
        <p className="flex flex-wrap items-center gap-4">
          <Button type="submit" disabled={send.isPending || open.isPending}>
            {send.isSuccess ? 'Sign in' : 'Send the code'}
          </Button>
          {send.isSuccess && (
            <Button look="link" onClick={() => send.mutate()}>
              Send another
            </Button>
          )}
          <Button look="link" onClick={back}>
            Sign in with a password
          </Button>
        </p>
      </form>
    </main>
  )
}
