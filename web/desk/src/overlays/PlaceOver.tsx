import { useKey } from '../app/keys'
import { useWork } from '../lessons/work'
import { spanOf } from '../sheet/placed'
import { usePlayingTime } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { clock, count } from '../ui/words'
import { actionOf } from './actions'
import { type Area, type Note, ofAreas, ofNotes, usual } from './overlays'

/** What can be placed over the picture where the lesson plays. */
export function PlaceOver({ select }: { select: (id: string | undefined) => void }) {
  const { document, reel, playback, edit } = useWork()
  const now = usePlayingTime(playback)
  const { areas, notes } = document
  const focus = (field: string) => setTimeout(() => window.document.querySelector<HTMLElement>(field)?.focus(), 120)
  const here = (long: number) => spanOf(playback.now(), playback.now() + long, reel.length)
  const placeArea = () => {
    const area: Area = {
      id: crypto.randomUUID(),
      span: here(usual.area),
      shape: {
        kind: 'rectangle',
        points: [
          { x: 0.4, y: 0.4 },
          { x: 0.6, y: 0.55 },
        ],
      },
      text: '',
      action: actionOf('text').fresh(0),
    }
    edit((d) => ofAreas.added(d, area))
    select(area.id)
    focus(`[data-area="${area.id}"]`)
  }
  const placeNote = () => {
    const note: Note = { id: crypto.randomUUID(), span: here(usual.note), text: '', corner: 'topRight', address: '' }
    edit((d) => ofNotes.added(d, note))
    select(note.id)
    focus(`[data-note="${note.id}"]`)
  }
  useKey('p', placeArea)
  useKey('n', placeNote)
  const things = [
    ...areas.map((a) => ({ id: a.id, at: a.span.start, words: a.text || 'a place to click' })),
    ...notes.map((n) => ({ id: n.id, at: n.span.start, words: n.text || 'a note' })),
  ].sort((a, b) => a.at - b.at)
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Over the picture">
      <h2>
        Over the picture{' '}
        <span className="font-normal text-quiet">
          ·{' '}
          {things.length === 0
            ? 'nothing'
            : [areas.length > 0 && `${count(areas.length, 'place', 'places')} to click`, notes.length > 0 && count(notes.length, 'note')]
                .filter(Boolean)
                .join(', ')}
        </span>
      </h2>
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Button look="link" onClick={placeArea}>
          Place to click at {clock(now)}
        </Button>
        <Button look="link" onClick={placeNote}>
          Note at {clock(now)}
        </Button>
      </div>
      {things.length === 0 ? (
        <p className="mt-2 text-quiet">A place leads on, or shows more, or is what learners must find. The keys are P and N.</p>
      ) : (
        <ul className="mt-2">
          {things.map((thing) => (
            <li key={thing.id} className="flex gap-3 py-0.5">
              <span className="w-12 shrink-0 text-right font-mono text-small leading-6 text-quiet">{clock(thing.at)}</span>
              <Button
                look="link"
                className="min-w-0 truncate"
                onClick={() => {
                  playback.seek(thing.at)
                  select(thing.id)
                }}
              >
                {thing.words}
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
