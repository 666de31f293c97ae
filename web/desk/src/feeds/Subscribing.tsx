import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { Copyable } from '../ui/Copyable'
import { Summary } from '../ui/Summary'

interface Props {
  feed: Schemas['FeedView']
  move: () => void
  moving: boolean
}

/** What leads listeners to a feed: the page on which they subscribe, the address for apps, a banner for one's own page. */
export function Subscribing({ feed, move, moving }: Props) {
  const [listed, heard] = [false, true].map((isSound) => feed.directories.find((d) => d.page && d.isSound === isSound))
  return (
    <section className="flex flex-col gap-2">
      <h2>Subscribing</h2>
      {listed?.page && (
        <>
          <p>{listed.name} lists it: hand on its page there.</p>
          <Copyable label="Page there" text={listed.page} open />
        </>
      )}
      <Copyable label="Page" text={feed.subscribePage} open />
      <Copyable label="Feed" text={feed.address} open />
      {feed.soundAddress && (
        <>
          {heard?.page && <Copyable label="Page of the sound there" text={heard.page} open />}
          <Copyable label="Feed of sound" text={feed.soundAddress} open />
          <p className="text-quiet">What was released before it was there comes in once it is released again; a lesson without sound never does.</p>
        </>
      )}
      <p className="text-quiet">The page opens the listener’s own app, shows the address to copy, and a code for a phone’s camera.</p>
      <details>
        <Summary className="py-1">A banner for your own page</Summary>
        <img src={`${new URL(feed.subscribePage).pathname}/banner.svg`} alt={`Subscribe to ${feed.settings.title}`} width={360} height={72} className="my-2" />
        <Copyable label="Banner’s code" text={feed.bannerCode} />
      </details>
      {feed.settings.unlisted && (
        <p>
          Whoever has it can listen.{' '}
          <Button look="link" onClick={move} disabled={moving}>
            Give it a new address
          </Button>{' '}
          <span className="text-quiet">Then the old one is gone, and everybody subscribes anew.</span>
        </p>
      )}
    </section>
  )
}
