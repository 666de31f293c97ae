import { useState } from 'react'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { TextLink } from '../ui/TextLink'
import { about, size } from '../ui/words'
import type { Upload, Uploads } from './useUploads'

interface Props {
  upload: Upload
  uploads: Uploads
  choose: () => void
}

/** One file that is being brought in: how far it is, its title, and what can be done with it. */
export function UploadRow({ upload: u, uploads, choose }: Props) {
  const percent = u.bytes === 0 ? 100 : Math.floor((u.sent / u.bytes) * 100)
  const [title, setTitle] = useState(u.title)
  const coming = u.state === 'coming' || u.state === 'paused' || u.state === 'lost' || u.state === 'elsewhere'
  return (
    <li className="border-t border-hairline py-2">
      <p className="break-words font-bold">{u.name}</p>
      {coming && (
        <>
          <div className="mt-1 flex flex-wrap items-center gap-x-3">
            <span
              role="progressbar"
              aria-label={`Bringing in ${u.name}`}
              aria-valuenow={percent}
              aria-valuemin={0}
              aria-valuemax={100}
              className="h-[6px] w-[90px] bg-hairline"
            >
              <span className="block h-full bg-ink" style={{ width: `${percent}%` }} />
            </span>
            <span>
              {percent} % of {size(u.bytes)}
              {u.state === 'coming' && u.left !== undefined && `, ${about(u.left)} left`}
            </span>
            {u.state === 'coming' && (
              <Button look="link" onClick={() => uploads.pause(u.key)}>
                Pause
              </Button>
            )}
            {(u.state === 'paused' || u.state === 'lost') && (
              <Button look="link" onClick={() => uploads.goOn(u.key)}>
                Go on
              </Button>
            )}
            {u.state === 'elsewhere' && (
              <Button look="link" onClick={choose}>
                Choose the file again
              </Button>
            )}
            <Button look="link" onClick={() => uploads.stop(u)}>
              Stop
            </Button>
          </div>
          {u.state === 'paused' && <p className="text-quiet">Paused; what has come stays for seven days.</p>}
          {u.state === 'lost' && (
            <p role="status" className="text-amber">
              The server cannot be reached. It goes on by itself, where it stopped, when it is back.
            </p>
          )}
          {u.state === 'elsewhere' && <p className="text-quiet">Begun before. Choose or drop the same file, and it goes on where it stopped.</p>}
          {!u.forLesson && (
            <div className="mt-1">
              <Field
                label="Title"
                value={title}
                maxLength={300}
                onChange={(e) => setTitle(e.target.value)}
                onBlur={() => title !== u.title && uploads.name(u, title)}
              />
            </div>
          )}
        </>
      )}
      {u.state === 'looking' && <p>Finding out what it is…</p>}
      {u.state === 'done' && (
        <p>
          {u.forLesson ? 'Came for the lesson' : 'Brought in'}, {size(u.bytes)}. <Open id={u.lessonId} />
        </p>
      )}
      {u.state === 'known' && (
        <p>
          These same bytes are here already. <Open id={u.lessonId} />
        </p>
      )}
      {u.state === 'stopped' && <p>Stopped; nothing was kept.</p>}
      {u.state === 'failed' && (
        <p role="alert" className="text-brick">
          {u.problem}
        </p>
      )}
    </li>
  )
}

function Open({ id }: { id: string | undefined }) {
  return <TextLink href={`/lessons/${id}/bring-in`}>Open the lesson</TextLink>
}
