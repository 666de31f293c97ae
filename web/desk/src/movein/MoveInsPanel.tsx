import { useKey } from '../app/keys'
import { partAt } from '../lessons/useLessons'
import { useWork } from '../lessons/work'
import { Edge } from '../sheet/Edge'
import { PartFrame } from '../tidy/PartFrame'
import { PartNumbers } from '../tidy/PartNumbers'
import { useTidying } from '../tidy/tidying'
import { Button } from '../ui/Button'
import { NumberField } from '../ui/NumberField'
import { clock, count, lengthOf } from '../ui/words'
import type { MoveIn } from './useMoveIns'
import { useStill } from './useStill'

const shortest = 200

export const timesLarger = (m: { part: MoveIn['part'] }) => `×${(1 / Math.max(m.part.width, m.part.height)).toFixed(1)}`

/** All move-ins, and the selected one: when, what part is seen, how fast it is gone to. */
export function MoveInsPanel() {
  const { moveIns, stretch } = useTidying()
  const { list, selected } = moveIns
  useKey('m', () => stretch && moveIns.add(stretch))
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Move-ins">
      <h2>
        Move-ins <span className="font-normal text-quiet">· {list.length === 0 ? 'none yet' : count(list.length, 'stretch', 'stretches')}</span>
      </h2>
      {list.length === 0 && !stretch && <p className="mt-1 text-quiet">Select a stretch in the sheet and press M to see a part of the picture large in it.</p>}
      {stretch && (
        <p className="mt-1">
          <Button look="link" onClick={() => moveIns.add(stretch)}>
            Move in for the selected {lengthOf(stretch.end - stretch.start)}
          </Button>
        </p>
      )}
      <ul className="mt-1">
        {list.map((m) => (
          <li key={m.id} className="py-0.5">
            <div className="flex items-baseline gap-3">
              <button
                type="button"
                aria-expanded={m.id === selected?.id}
                className={`font-mono text-small hover:text-copper ${m.id === selected?.id ? 'font-bold' : ''}`}
                onClick={() => moveIns.select(m.id === selected?.id ? undefined : m.id)}
              >
                {clock(m.span.start)} – {clock(m.span.end)}
              </button>
              <span className="text-quiet">{timesLarger(m)}</span>
              <Button look="link" className="ml-auto" aria-label={`Remove the move-in at ${clock(m.span.start)}`} onClick={() => moveIns.remove(m.id)}>
                Remove
              </Button>
            </div>
            {m.id === selected?.id && <Selected moveIn={m} />}
          </li>
        ))}
      </ul>
    </section>
  )
}

function Selected({ moveIn: m }: { moveIn: MoveIn }) {
  const { reel, frameMs, playback } = useWork()
  const { moveIns } = useTidying()
  const { length } = reel
  const recorded = reel.parts[partAt(reel.parts, m.span.start)].facts.picture?.shownSize ?? reel.largest
  const still = useStill(playback, true)
  const span = (start: number, end: number) => {
    const from = Math.round(Math.max(0, Math.min(start, length - shortest)))
    const to = Math.round(Math.min(length, Math.max(end, from + shortest)))
    moveIns.change(m.id, { span: { start: from, end: to, length: to - from } })
  }
  return (
    <div className="mb-3 border-l-2 border-copper pl-3">
      <PartFrame picture={still} recorded={recorded} part={m.part} take={(part) => moveIns.change(m.id, { part })} />
      <p className="mt-1 text-quiet">The frame is what must be seen; the canvas shows that, and as much around it as its shape needs.</p>
      <PartNumbers part={m.part} recorded={recorded} take={(part) => moveIns.change(m.id, { part })} />
      <div className="mt-2 flex flex-wrap gap-x-4">
        <Edge label="Moves in at" at={m.span.start} frameMs={frameMs} soundEdges={[]} move={(to) => span(to, m.span.end)} />
        <Edge label="Is out again at" at={m.span.end} frameMs={frameMs} soundEdges={[]} move={(to) => span(m.span.start, to)} />
      </div>
      <div className="mt-2 flex items-end gap-4">
        <div className="w-40">
          <NumberField label="Each way takes, s" value={m.ease / 1000} least={0} most={3} take={(s) => moveIns.change(m.id, { ease: Math.round(s * 1000) })} />
        </div>
        <Button look="link" onClick={() => playback.hear({ start: Math.max(0, m.span.start - 1000), end: m.span.end + 1000 })}>
          Play it
        </Button>
      </div>
    </div>
  )
}
