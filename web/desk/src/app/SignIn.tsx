import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { linkLook } from '../ui/TextLink'
import { api, Refused, taken } from './api'
import { ForgottenPassword } from './NewPassword'
import { wantedPage } from './ownPath'
import { noPasskeysBecause, signInByPasskey } from './passkeys'
import { SignInByCode } from './SignInByCode'

/** What stands in the address: why signing in elsewhere did not go, and where somebody wanted to. */
function asked() {
  const said = new URLSearchParams(location.search)
  const of = (name: string) => said.get(name) ?? undefined
  return { failed: of('failed'), provider: of('provider'), refused: of('refused') }
}

/** Signing in: by the organisation’s own provider, by a passkey, by a password, or by a code that is mailed. */
export function SignIn() {
  const client = useQueryClient()
  const [problem, setProblem] = useState('')
  const [codeAsked, askForCode] = useState(false)
  const [otherWay, setOtherWay] = useState<'code' | 'forgotten'>()
  const ways = useQuery({ queryKey: ['sign-in ways'], queryFn: () => taken(api.GET('/api/sign-in/ways', { params: { query: asked() } })) })
  const signIn = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    const said = (name: string) => String(form.get(name) ?? '')
    try {
      const me = await taken(api.POST('/api/sign-in', { body: { email: said('email'), password: said('password'), code: codeAsked ? said('code') : null } }))
      const to = wantedPage()
      if (to) location.assign(to)
      else if (!me.trainer) location.assign('/channel')
      else if (location.pathname === '/sign-in') location.assign('/')
      else client.setQueryData(['me'], me)
    } catch (refused) {
      const asks = refused instanceof Refused && refused.code === 'sign-in-code'
      askForCode(asks || codeAsked)
      setProblem(asks && !codeAsked ? '' : (refused as Error).message)
    }
  }
  const byPasskey = useMutation({
    mutationFn: signInByPasskey,
    onError: (refused) => setProblem(refused.message),
    onSuccess: () => location.assign(wantedPage() ?? '/'),
  })
  const back = () => setOtherWay(undefined)
  if (otherWay === 'code') return <SignInByCode back={back} />
  if (otherWay === 'forgotten') return <ForgottenPassword back={back} />
  const wanted = location.pathname === '/sign-in' ? (new URLSearchParams(location.search).get('to') ?? '/') : location.pathname + location.search
  const failed = problem || ways.data?.problem
  return (
    <main className="mx-auto mt-16 max-w-sm p-6">
      <p className="mb-6 text-title font-bold">wexel</p>
      <h1>Sign in</h1>
      {failed && (
        <p role="alert" className="mt-4 border-l-2 border-brick pl-3 text-brick">
          {failed}
        </p>
      )}
      {ways.data?.providers.map((p) => (
        <p key={p.id} className="mt-4">
          <a
            href={`/provider/${p.id}/go?to=${encodeURIComponent(wanted)}`}
            className="block rounded-[2px] bg-copper px-4 py-2 text-center font-bold text-on-copper hover:brightness-110"
          >
            Sign in with {p.name}
          </a>
        </p>
      ))}
      {ways.data && ways.data.providers.length > 0 && <h2 className="mt-8">Or with a password</h2>}
      <form onSubmit={signIn} className="mt-4 flex flex-col gap-4">
        <Field label="Mail address" name="email" type="email" autoComplete="username" required />
        <Field label="Password" name="password" type="password" autoComplete="current-password" required />
        {codeAsked && (
          <Field label="Code from your authenticator app, or a recovery code" name="code" inputMode="text" autoComplete="one-time-code" autoFocus required />
        )}
        <p className="flex flex-wrap items-center gap-4">
          <Button type="submit">Sign in</Button>
          <Button look="link" onClick={() => setOtherWay('forgotten')}>
            I have forgotten my password
          </Button>
        </p>
      </form>
      <ul className="mt-6 flex flex-col gap-2 border-t border-hairline pt-3 text-quiet">
        {!noPasskeysBecause() && (
          <li>
            Does this device keep a passkey?{' '}
            <button type="button" className={linkLook} onClick={() => byPasskey.mutate()} disabled={byPasskey.isPending}>
              Sign in with it
            </button>
          </li>
        )}
        <li>
          Was a lesson sent to you, and you have no account?{' '}
          <Button look="link" onClick={() => setOtherWay('code')}>
            Have a code sent
          </Button>
        </li>
      </ul>
    </main>
  )
}
