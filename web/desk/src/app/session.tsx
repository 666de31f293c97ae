import { lazy, type ReactNode, Suspense, useEffect } from 'react'
import { TextLink } from '../ui/TextLink'
import { ChoosePassword } from './NewPassword'
import { SignIn } from './SignIn'
import { useMe } from './useMe'

const LearnersAccount = lazy(() => import('../account/Account').then((view) => ({ default: view.LearnersAccount })))

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
  if (!me.data.trainer && location.pathname === '/account')
    return (
      <Suspense>
        <LearnersAccount />
      </Suspense>
    )
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
