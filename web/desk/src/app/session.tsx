import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, type ReactNode, useEffect, useState } from 'react'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { TextLink } from '../ui/TextLink'
import { api, Refused, taken } from './api'
import { ChoosePassword, ForgottenPassword } from './NewPassword'
import { wantedPage } from './ownPath'
import { SignInByCode } from './SignInByCode'

export function useMe() {
  return useQuery({
    queryKey: ['me'],
    queryFn: async () => {
      try {
        return await taken(api.GET('/api/me'))
      } catch (problem) {
        if (problem instanceof Refused && problem.status === 401) return null
        throw problem
      }
    },
    staleTime: Number.POSITIVE_INFINITY,
  })
}

/** Shows its children to a trainer, and the sign-in form to everybody else. */
export function Session({ children }: { children: ReactNode }) {
  const me = useMe()
  if (location.pathname === '/new-password') return <ChoosePassword />
  if (me.isPending) return null
  if (me.error)
    return (
      <p role="alert" className="p-8 text-brick">
        {me.error.message}
      </p>
    )
  if (!me.data || location.pathname === '/sign-in') return <SignIn />
  if (!me.data.trainer) return <NotForLearners />
  return children
}

/** A learner who comes in by the front door is shown to the lessons; who was given a link into the desk is told. */
function NotForLearners() {
  const front = location.pathname === '/'
  useEffect(() => {
    if (front) location.replace('/channel')
  }, [front])
  if (front) return null
  return (
    <main className="mx-auto mt-24 max-w-md p-6">
      <h1>This side is for trainers</h1>
      <p className="mt-2">
        You are signed in as a learner. Your lessons are on <TextLink href="/channel">the list of lessons</TextLink>.
      </p>
    </main>
  )
}

function SignIn() {
  const client = useQueryClient()
  const [problem, setProblem] = useState('')
  const [codeAsked, askForCode] = useState(false)
  const [otherWay, setOtherWay] = useState<'code' | 'forgotten'>()
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
  const back = () => setOtherWay(undefined)
  if (otherWay === 'code') return <SignInByCode back={back} />
  if (otherWay === 'forgotten') return <ForgottenPassword back={back} />
  return (
    <main className="mx-auto mt-24 max-w-sm p-6">
      <p className="mb-6 text-title font-bold">wexel</p>
      <h1>Sign in</h1>
      <form onSubmit={signIn} className="mt-4 flex flex-col gap-4">
        <Field label="Mail address" name="email" type="email" autoComplete="username" required />
        <Field label="Password" name="password" type="password" autoComplete="current-password" required />
        {codeAsked && (
          <Field label="Code from your authenticator app, or a recovery code" name="code" inputMode="text" autoComplete="one-time-code" autoFocus required />
        )}
        {problem && (
          <p role="alert" className="text-brick">
            {problem}
          </p>
        )}
        <p className="flex flex-wrap items-center gap-4">
          <Button type="submit">Sign in</Button>
          <Button look="link" onClick={() => setOtherWay('forgotten')}>
            I have forgotten my password
          </Button>
        </p>
      </form>
      <p className="mt-6 border-t border-hairline pt-3 text-quiet">
        Was a lesson sent to you, and you have no account?{' '}
        <Button look="link" onClick={() => setOtherWay('code')}>
          Have a code sent
        </Button>
      </p>
    </main>
  )
}
