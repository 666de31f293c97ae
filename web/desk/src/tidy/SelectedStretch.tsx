import { useKey } from '../app/keys'
import { useWork } from '../lessons/work'
import { Edge } from '../sheet/Edge'
import { Button } from '../ui/Button'
import { lengthOf } from '../ui/words'
import { withCut } from './cuts'
import { Outcome } from './Outcome'
import { SectionStretch } from './SectionStretch'
import { useTidying } from './tidying'

/** The selected stretch: its edges to the frame, and what cutting it comes to. */
export function SelectedStretch() {
  const { lessonId, document, reel, frameMs, playback } = useWork()
  const { cutting, stretch, setStretch } = useTidying()
  const { length, soundEdges } = reel
  const { cut, kept, take, giveBack } = cutting
  const here = () => Math.min(length, playback.now())
  // At least a frame, within the recording, in whole milliseconds, which is how times are kept.
  const startAt = (start: number) =>
    setStretch({
      start: Math.round(Math.max(0, Math.min(start, length - frameMs))),
      end: Math.round(Math.min(length, Math.max(stretch?.end ?? 0, start + frameMs))),
    })
  const endAt = (end: number) =>
    setStretch({ start: Math.round(Math.max(0, Math.min(stretch?.start ?? 0, end - frameMs))), end: Math.round(Math.min(length, Math.max(end, frameMs))) })
  useKey('[', () => startAt(here()))
  useKey(']', () => endAt(here()))
  useKey('x', () => stretch && (kept > 0 ? take() : giveBack(stretch)))
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Selected stretch">
      <h2>Selected stretch</h2>
      {stretch ? (
        <>
          <div className="mt-2 flex flex-wrap gap-x-4">
            <Edge label="From" at={stretch.start} frameMs={frameMs} soundEdges={soundEdges} move={startAt} />
            <Edge label="To" at={stretch.end} frameMs={frameMs} soundEdges={soundEdges} move={endAt} />
          </div>
          {kept > 0 && <Outcome lessonId={lessonId} cuts={withCut(document.cuts, stretch)} />}
          <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
            {kept > 0 && <Button onClick={take}>Cut {lengthOf(kept)}</Button>}
            {cut > 0 && (
              <Button look={kept > 0 ? 'link' : 'main'} onClick={() => giveBack(stretch)}>
                Restore {lengthOf(cut)}
              </Button>
            )}
            <Button look="link" onClick={() => playback.seek(stretch.start)}>
              Go to its start
            </Button>
            <Button look="link" onClick={() => setStretch(undefined)}>
              Select nothing
            </Button>
          </div>
        </>
      ) : (
        <p className="mt-1 text-quiet">Drag down the sheet, or press [ where it starts and ] where it ends. X cuts it, and what follows closes up.</p>
      )}
      {document.sections.length > 0 && <SectionStretch sections={document.sections} length={length} setStretch={setStretch} />}
    </section>
  )
}
