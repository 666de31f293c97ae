import { endings, useSendForLesson } from '../bringin/BringIn'
import { useHouse } from '../kit/useMark'
import { LookAgain } from '../lessons/LookAgain'
import { useWork } from '../lessons/work'
import { useTidying } from '../tidy/tidying'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { clock, count, lengthOf } from '../ui/words'
import { CameraLook } from './CameraLook'
import { CameraTime } from './CameraTime'
import { laid, lookOf, shownIn, shownWords, without } from './camera'
import { useCameras } from './useCameras'
import { useFinding } from './useFinding'

/** A camera that recorded the same time, laid over the screen: when it starts, how it stands, and where it is shown otherwise. */
export function CameraPanel() {
  const { lessonId, document, reel, edit, playback } = useWork()
  const { stretch } = useTidying()
  const cameras = useCameras(document)
  const house = useHouse().data
  const send = useSendForLesson()
  const finding = useFinding(edit)
  const part = reel.parts[playback.part] ?? reel.parts[0]
  const own = document.cameras.find((c) => c.over === part.hash)
  const there = cameras?.cameras.find((c) => c.recording === own?.recording && reel.parts[c.over]?.hash === part.hash)
  const look = lookOf(document)
  const come = (file: File) => {
    const over = part.hash
    send(file, {
      lessonId,
      take: (hash) => {
        edit((d) => laid(d, over, hash, house?.placement?.position))
        finding.find(over, hash)
      },
    })
  }
  const show = (shown: (typeof shownWords)[number][0]) => {
    if (stretch) edit((d) => ({ ...d, cameraStretches: shownIn(d.cameraStretches, stretch, shown, look.usually, crypto.randomUUID().slice(0, 8)) }))
  }
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Camera">
      <h2>
        Camera <span className="font-normal text-quiet">· {own ? (there?.fileName ?? 'being brought in') : 'none'}</span>
      </h2>
      {!own && (
        <p className="mt-1 text-quiet">
          What a camera recorded at the same time is laid over the screen{reel.parts.length > 1 ? ` of ${part.fileName}` : ''}. When it starts is found by its
          sound.
        </p>
      )}
      <p className="mt-1 flex flex-wrap gap-x-5">
        <ChooseFile label="Choose a camera’s recording" accept={endings} take={come}>
          {own ? 'Take another' : 'Lay a camera over it'}
        </ChooseFile>
        {own && (
          <Button look="link" onClick={() => edit((d) => without(d, part.hash))}>
            Take it away
          </Button>
        )}
      </p>
      {own && there && (
        <>
          {there.failure && <LookAgain hash={there.recording} failure={there.failure} />}
          {!there.viewable && !there.failure && <p className="mt-1 text-quiet">The browser cannot play it as it is; a viewing copy is being made.</p>}
          <CameraTime take={own} hasSound={there.hasSound} finding={finding} />
          {there.notes.map((note) => (
            <p key={note} className="mt-1 text-amber">
              {note}
            </p>
          ))}
          {stretch && (
            <p className="mt-2 flex flex-wrap items-baseline gap-x-4">
              <span>In the selected {lengthOf(stretch.end - stretch.start)}:</span>
              {shownWords.map(([shown, words]) => (
                <Button key={shown} look="link" onClick={() => show(shown)}>
                  {words}
                </Button>
              ))}
            </p>
          )}
          <CameraLook camera={there} stretches={document.cameraStretches} />
          {cameras && <InTheWay ranges={cameras.inTheWay} seek={playback.seek} />}
          {cameras?.notLookedAt.includes(part.hash) && (
            <div className="mt-2 border-l-2 border-amber pl-3">
              <p className="text-amber">Where something happens on this screen is not known yet, so the camera cannot keep clear of it.</p>
              <LookAgain hash={part.hash} failure={null} />
            </div>
          )}
        </>
      )}
    </section>
  )
}

/** Where the camera cannot keep clear. */
function InTheWay({ ranges, seek }: { ranges: { start: number; end: number }[]; seek: (ms: number) => void }) {
  if (ranges.length === 0) return null
  return (
    <p className="mt-2 text-amber">
      In {count(ranges.length, 'stretch', 'stretches')} something happens in all four corners; there it is not shown:{' '}
      {ranges.map((r) => (
        <Button key={r.start} look="link" className="mr-3 font-mono text-small" onClick={() => seek(r.start)}>
          {clock(r.start)} – {clock(r.end)}
        </Button>
      ))}
    </p>
  )
}
