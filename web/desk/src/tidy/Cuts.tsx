import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { clock, count, exactClock, lengthOf } from '../ui/words'
import { SplitLesson } from './SplitLesson'
import { useTidying } from './tidying'

/** All that is cut. */
export function Cuts() {
  const { lessonId, revision, document, playback } = useWork()
  const { cutting, setStretch } = useTidying()
  const all = document.cuts.reduce((sum, c) => sum + c.end - c.start, 0)
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Cuts">
      <h2>
        Cuts{' '}
        <span className="font-normal text-quiet">
          · {document.cuts.length === 0 ? 'none yet' : `${count(document.cuts.length, 'stretch', 'stretches')}, ${lengthOf(all)}`}
        </span>
      </h2>
      <ul className="mt-1">
        {document.cuts.map((c) => (
          <li key={c.start} className="flex items-baseline gap-3 py-0.5">
            <button
              type="button"
              className="font-mono text-small hover:text-copper"
              onClick={() => {
                setStretch({ start: c.start, end: c.end })
                playback.seek(c.start)
              }}
            >
              {exactClock(c.start)} – {exactClock(c.end)}
            </button>
            <span className="text-quiet">{lengthOf(c.end - c.start)}</span>
            <Button look="link" className="ml-auto" aria-label={`Restore the cut at ${clock(c.start)}`} onClick={() => cutting.giveBack(c)}>
              Restore
            </Button>
          </li>
        ))}
      </ul>
      {document.cuts.length > 0 && <p className="mt-1 text-quiet">Playing passes over them. Nothing of the recording is lost.</p>}
      <SplitLesson lessonId={lessonId} revision={revision} playback={playback} />
    </section>
  )
}
