import { useWork } from '../lessons/work'
import { usePlayingTime } from '../sheet/usePlayback'
import { useTidying } from '../tidy/tidying'
import { Button } from '../ui/Button'
import { clock, count, lengthOf } from '../ui/words'
import { type Bed, laid, ofSounds } from './beds'
import { ChooseSound } from './ChooseSound'
import { useMixing } from './useMix'

/** What lies under the voice, and laying something there. */
export function SoundsPanel({ select }: { select: (id: string | undefined) => void }) {
  const { lessonId, revision, document, reel, playback, edit } = useWork()
  const { stretch } = useTidying()
  const mixing = useMixing(lessonId, revision, document.sounds.length > 0).data
  const now = usePlayingTime(playback)
  const lay = (bed: Bed) => {
    edit((d) => ofSounds.added(d, bed))
    select(bed.id)
    playback.seek(bed.span.start)
  }
  const silent = mixing && mixing.spoken.length === 0
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Sounds under the voice">
      <h2>
        Sounds under the voice{' '}
        <span className="font-normal text-quiet">· {document.sounds.length === 0 ? 'none' : count(document.sounds.length, 'sound')}</span>
      </h2>
      <div className="mt-1 flex flex-wrap gap-x-5">
        {stretch ? (
          <ChooseSound
            words={`Lay one under the selected ${lengthOf(stretch.end - stretch.start)}`}
            choose={(sound, isEffect) => lay(laid(sound, isEffect, stretch.start, stretch.end, reel.length))}
          />
        ) : (
          <>
            <ChooseSound words="Lay one under all of it" choose={(sound, isEffect) => lay(laid(sound, isEffect, 0, reel.length, reel.length))} />
            <ChooseSound
              words={`Lay one from ${clock(now)} on`}
              choose={(sound, isEffect) => lay(laid(sound, isEffect, playback.now(), reel.length, reel.length))}
            />
          </>
        )}
      </div>
      {document.sounds.length > 0 && (
        <ul className="mt-1">
          {document.sounds.map((bed) => (
            <li key={bed.id} className="flex items-baseline gap-3 py-0.5 [&>button]:min-h-6">
              <span className="shrink-0 font-mono text-small text-quiet">
                {clock(bed.span.start)} – {clock(bed.span.end)}
              </span>
              <Button
                look="link"
                className="min-w-0 truncate"
                onClick={() => {
                  playback.seek(bed.span.start)
                  select(bed.id)
                }}
              >
                {bed.sound.title}
              </Button>
              <Button
                look="link"
                className="ml-auto"
                aria-label={`Remove “${bed.sound.title}” at ${clock(bed.span.start)}`}
                onClick={() => edit((d) => ofSounds.without(d, bed.id))}
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
      {document.sounds.length > 0 && mixing && (
        <p className="mt-1 text-quiet">
          {silent
            ? 'Nobody speaks in this lesson: sounds are brought to where a voice would have them.'
            : `Each comes down where somebody speaks, ${count(mixing.spoken.length, 'stretch', 'stretches')}. It is heard here as learners will hear it.`}
        </p>
      )}
    </section>
  )
}
