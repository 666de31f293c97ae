import { useMemo } from 'react'
import type { Looking, SheetThing } from '../sheet/thing'
import { useTidying } from '../tidy/tidying'
import { Button } from '../ui/Button'
import { clock } from '../ui/words'
import { Propose, px } from './HardToRead'
import { timesLarger } from './MoveInsPanel'
import type { HardStretch } from './useDetail'
import type { ActingOnDetail, MoveIn } from './useMoveIns'

/** A move-in where it begins. */
function MoveInNote({ moveIn, acting }: { moveIn: MoveIn; acting: ActingOnDetail }) {
  return (
    <div data-beside data-move-in className="mb-1 ml-[92px] mr-4 mt-0.5 flex flex-wrap items-center gap-x-4 border border-lagoon px-3 py-0.5">
      <span>
        <b className="text-lagoon">Moves in {timesLarger(moveIn)}</b> <span className="text-quiet">until {clock(moveIn.span.end)}</span>
      </span>
      <Button look="link" onClick={() => acting.select(moveIn.id)}>
        Change it
      </Button>
    </div>
  )
}

/** What is hard to read from here on. */
function HardNote({ stretch, at, acting }: { stretch: HardStretch; at: string; acting: ActingOnDetail }) {
  return (
    <p data-beside data-hard className="mb-1 ml-[92px] mr-4 flex flex-wrap items-baseline gap-x-4 text-small text-quiet">
      <span>
        smallest text <span className="font-mono">{px(stretch.smallest)}</span> at {at}
      </span>
      <Propose stretch={stretch} acting={acting} />
    </p>
  )
}

/** Move-ins, while a lesson is tidied. */
export function useMoveInNotes({ stage }: Looking): SheetThing[] {
  const { list, acting } = useTidying().moveIns
  return useMemo(
    () =>
      stage === 'tidy'
        ? list.map((m) => ({ key: `move-in ${m.id}`, at: m.span.start, place: 'below', px: 34, show: () => <MoveInNote moveIn={m} acting={acting} /> }))
        : [],
    [stage, list, acting],
  )
}

/** What is hard to read, while a lesson is tidied. */
export function useHardNotes({ stage }: Looking): SheetThing[] {
  const { detail, moveIns } = useTidying()
  const { stretches, at } = detail
  const { acting } = moveIns
  return useMemo(
    () =>
      stage === 'tidy'
        ? stretches.map((h) => ({
            key: `hard ${h.span.start}`,
            at: h.span.start,
            place: 'below',
            px: 24,
            show: () => <HardNote stretch={h} at={at} acting={acting} />,
          }))
        : [],
    [stage, stretches, at, acting],
  )
}
