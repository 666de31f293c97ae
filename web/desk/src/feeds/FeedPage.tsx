import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { Schemas } from '../app/api'
import { OutletEnd } from '../outlets/OutletEnd'
import { Survival } from '../outlets/Survival'
import { Field } from '../ui/Field'
import { Page, Waiting } from '../ui/Page'
import { PictureChoice } from '../ui/PictureChoice'
import { TextLink } from '../ui/TextLink'
import { clock, count, day, size } from '../ui/words'
import { Directories } from './Directories'
import { FeedForm } from './FeedForm'
import { Findings } from './Findings'
import { Listeners } from './Listeners'
import { Subscribing } from './Subscribing'
import { useFeed } from './useFeed'

/** A podcast feed: what is said of it, what is in it, and whether directories will take it. */
export function FeedPage() {
  const { id = '' } = useParams()
  const feed = useFeed(id)
  const now = feed.feed.data
  return (
    <Page
      title={now?.settings.title ?? 'Podcast feed'}
      about={
        now
          ? [
              'Podcast feed',
              `${count(now.episodes.length, 'episode')} of ${kind(now.settings)}`,
              now.settings.private ? 'private' : now.settings.unlisted ? 'unlisted' : 'open to directories',
            ].join(' · ')
          : ''
      }
    >
      <Waiting query={feed.feed}>
        {now && (
          <div className="grid gap-x-12 gap-y-8 xl:grid-cols-[minmax(0,560px)_minmax(0,1fr)]">
            <div className="flex flex-col gap-8">
              <section>
                <h2>Settings</h2>
                <FeedForm settings={now.settings} action="Save" save={(settings) => feed.save.mutateAsync(settings)} />
              </section>
            </div>
            <div className="flex flex-col gap-8">
              <Findings findings={now.findings} unlisted={now.settings.unlisted || now.settings.private} />
              {now.settings.private ? (
                <Listeners
                  listeners={now.listeners}
                  add={(name) => feed.addListener.mutateAsync(name)}
                  withdraw={(listener) => feed.withdraw.mutate(listener)}
                />
              ) : (
                <Subscribing feed={now} move={() => feed.move.mutate()} moving={feed.move.isPending} />
              )}
              <Directories feed={now} submit={(to) => feed.submit.mutate(to)} submitting={feed.submit.isPending} />
              <PictureChoice
                title="Artwork"
                picture={<img src={now.artwork} alt="The feed’s artwork" width={140} height={140} className="border border-hairline" />}
                about={now.artworkIsOwn ? 'Your own picture.' : 'Made from the title, the colour and the house’s mark, 3000 × 3000 pixels.'}
                choose="Use a picture of your own"
                take={feed.takeArtwork}
                drop={now.artworkIsOwn ? { label: 'Make it from the title again', act: () => feed.dropArtwork.mutate() } : undefined}
                wants="Square, 1400 to 3000 pixels, JPEG or PNG, RGB."
              />
              <Episodes episodes={now.episodes} />
              <Folder id={id} />
              <OutletEnd id={id} name={now.settings.title} />
            </div>
            <div className="xl:col-span-2">
              <Survival id={id} />
            </div>
          </div>
        )}
      </Waiting>
    </Page>
  )
}

const kind = ({ media, alsoSound }: Schemas['FeedSettings']) => (media === 'sound' ? 'sound' : alsoSound ? 'video, and as sound' : 'video')

function Episodes({ episodes }: { episodes: Schemas['FeedEpisode'][] }) {
  return (
    <section>
      <h2>Episodes</h2>
      {episodes.length === 0 && <p className="text-quiet">None yet. Open a lesson, go to Deliver, and release it here.</p>}
      <ul className="border-t border-hairline">
        {episodes.map((e) => (
          <li key={e.lessonId} className="flex justify-between gap-4 border-b border-hairline py-1.5">
            <Link className="hover:underline" to={`/lessons/${e.lessonId}/deliver`}>
              <span className="font-mono text-small text-quiet">
                {e.season}.{e.number}
              </span>{' '}
              {e.title}
            </Link>
            <span className="font-mono text-small text-quiet">
              {clock(e.length)} · {size(e.bytes)} · {day(e.publishedAt)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

function Folder({ id }: { id: string }) {
  const [address, setAddress] = useState('')
  const usable = /^https?:\/\/[^/\s]+/.test(address)
  return (
    <section className="flex flex-col gap-2">
      <h2>On your own web server</h2>
      <Field
        label="Address where the folder will lie"
        type="url"
        placeholder="https://intranet.example/listening/"
        value={address}
        onChange={(e) => setAddress(e.target.value)}
      />
      {usable ? (
        <TextLink href={`/api/feeds/${id}/folder.zip?address=${encodeURIComponent(address)}`} download>
          Download the feed as a folder
        </TextLink>
      ) : (
        <p className="text-quiet">With the address, the feed, its artwork and its episodes can be downloaded as a folder.</p>
      )}
    </section>
  )
}
