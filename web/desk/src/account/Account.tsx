import { signOut } from '../app/signOut'
import { useMe } from '../app/useMe'
import { Button } from '../ui/Button'
import { Page } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { Follows } from './Follows'
import { Passkeys } from './Passkeys'
import { Password } from './Password'
import { SecondFactor } from './SecondFactor'
import { Sessions } from './Sessions'

/** One's own account: where one is signed in, and how one signs in. */
export function Account() {
  const me = useMe()
  return (
    <Page title="Your account" about="Where you are signed in, what you follow, and how you sign in.">
      <div className="flex max-w-3xl flex-col gap-10">
        <Sessions />
        <Follows />
        <Passkeys />
        {me.data?.hasPassword && (
          <>
            <Password />
            <SecondFactor />
          </>
        )}
        <section>
          <h2 className="border-b-2 border-ink pb-1">What is known of you</h2>
          <p className="mt-3">
            <TextLink href="/api/me/data" download>
              Download all of it
            </TextLink>{' '}
            <span className="text-quiet">· a file in JSON. An administrator removes it if you ask for that.</span>
          </p>
        </section>
      </div>
    </Page>
  )
}

/** The same for learners, who have no other place on this side. */
export function LearnersAccount() {
  const me = useMe()
  return (
    <main className="mx-auto max-w-4xl">
      <p className="flex flex-wrap items-baseline justify-between gap-4 px-8 pt-6">
        <TextLink href="/channel">To the lessons</TextLink>
        <span>
          {me.data?.name} · {me.data?.email} ·{' '}
          <Button look="link" onClick={signOut}>
            Sign out
          </Button>
        </span>
      </p>
      <Account />
    </main>
  )
}
