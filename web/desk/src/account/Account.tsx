import { Page } from '../ui/Page'
import { Password } from './Password'
import { SecondFactor } from './SecondFactor'
import { Sessions } from './Sessions'

/** One's own account: where one is signed in, the password, and the second factor. */
export function Account() {
  return (
    <Page title="Your account" about="Where you are signed in, and how you sign in.">
      <div className="flex max-w-3xl flex-col gap-10">
        <Sessions />
        <Password />
        <SecondFactor />
      </div>
    </Page>
  )
}
