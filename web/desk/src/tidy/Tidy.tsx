import { useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { useKey } from '../app/keys'
import type { Document } from '../lessons/useLesson'
import { type Cut, stretchOf } from '../sheet/blocks'
import type { Playback } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { clock, count, exactClock, lengthOf } from '../ui/words'
import { cutWithin, restored, withCut } from './cuts'
import { Edge } from './Edge'

interface Props {
  lessonId: string
  document: Document
  length: number
  frameMs: number
  playback: Playback
  edit: (change: (d: Document) => Document) => void
  stretch: Cut | undefined
  setStretch: (stretch: Cut | undefined) => void
}

/** The tools of the tidy stage: what can be done with the selected stretch, and what is cut. */
export function Tidy({ lessonId, document, length, frameMs, playback, edit, stretch, setStretch }: Props) {
  const cut = stretch ? cutWithin(document.cuts, stretch) : 0
  const kept = stretch ? stretch.end - stretch.start - cut : 0
  const take = () => stretch && edit((d) => ({ ...d, cuts: withCut(d.cuts, stretch) }))
  const giveBack = (back: Cut) => edit((d) => ({ ...d, cuts: restored(d.cuts, back) }))
  const here = () => Math.min(length, playback.now())
  // At least a frame, within the recording, in whole milliseconds, which is how times are kept.
  const startAt = (start: number) =>
    setStretch({ start: Math.round(Math.max(0, Math.min(start, length - frameMs))), end: Math.round(Math.min(length, Math.max(stretch?.end ?? 0, start + frameMs))) })
  const endAt = (end: number) =>
    setStretch({ start: Math.round(Math.max(0, Math.min(stretch?.start ?? 0, end - frameMs))), end: Math.round(Math.min(length, Math.max(end, frameMs))) })
  useKey('[', () => startAt(here()))
  useKey(']', () => endAt(here()))
  useKey('x', () => stretch && (kept > 0 ? take() : giveBack(stretch)))
  const all = document.cuts.reduce((sum, c) => sum + c.end - c.start, 0)
  return (
    <>
      <section className="mt-4 border-t border-hairline pt-3" aria-label="Selected stretch">
        <h2>Selected stretch</h2>
        {stretch ? (
          <>
            <div className="mt-2 flex flex-wrap gap-x-4">
              <Edge label="From" at={stretch.start} frameMs={frameMs} move={startAt} />
              <Edge label="To" at={stretch.end} frameMs={frameMs} move={endAt} />
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
        {document.sections.length > 0 && (
          <label className="mt-3 flex items-center gap-2">
            <span className="text-quiet">Or a whole section</span>
            <select
              value=""
              onChange={(e) => setStretch(stretchOf(document.sections, e.target.value, length))}
              className="min-w-0 flex-1 border border-quiet/60 bg-field px-2 py-1"
            >
              <option value="">Choose one</option>
              {document.sections.map((s) => (
                <option key={s.id} value={s.id}>
                  {clock(s.at)} {s.title}
                </option>
              ))}
            </select>
          </label>
        )}
      </section>
      <section className="mt-4 border-t border-hairline pt-3" aria-label="Cuts">
        <h2>
          Cuts{' '}
          <span className="font-normal text-quiet">· {document.cuts.length === 0 ? 'none yet' : `${count(document.cuts.length, 'stretch', 'stretches')}, ${lengthOf(all)}`}</span>
        </h2>
        <ul className="mt-1">
          {document.cuts.map((c) => (
            <li key={c.start} className="flex items-baseline gap-3 py-0.5">
              <button
                type="button"
                className="font-mono text-[13px] hover:text-copper"
                onClick={() => {
                  setStretch({ start: c.start, end: c.end })
                  playback.seek(c.start)
                }}
              >
                {exactClock(c.start)} – {exactClock(c.end)}
              </button>
              <span className="text-quiet">{lengthOf(c.end - c.start)}</span>
              <Button look="link" className="ml-auto" aria-label={`Restore the cut at ${clock(c.start)}`} onClick={() => giveBack(c)}>
                Restore
              </Button>
            </li>
          ))}
        </ul>
        {document.cuts.length > 0 && <p className="mt-1 text-quiet">Playing passes over them. Nothing of the recording is lost.</p>}
      </section>
    </>
  )
}

/** What a cut comes to, before it is made: worked out where the lesson's times are. */
function Outcome({ lessonId, cuts }: { lessonId: string; cuts: Document['cuts'] }) {
  const { data } = useQuery({
    queryKey: ['cuts-outcome', lessonId, cuts],
    queryFn: () => taken(api.POST('/api/lessons/{id}/cuts/outcome', { params: { path: { id: lessonId } }, body: { cuts } })),
    placeholderData: (before) => before,
  })
  if (!data) return null
  if (data.problem)
    return (
      <p role="alert" className="mt-2 text-brick">
        {data.problem.sentence}
      </p>
    )
  const gone = [...data.sectionsGone.map((title) => `the section “${title}”`), ...(data.captionsGone > 0 ? [count(data.captionsGone, 'caption')] : [])]
  return (
    <p className="mt-2 text-quiet">
      The lesson would be {clock(data.length)} long.{gone.length > 0 && <span className="text-amber"> With it would go {gone.join(', ')}; restoring brings back what went.</span>}
    </p>
  )
}
