import { useMemo } from 'react'
import { useWork } from '../lessons/work'
import type { Looking, SheetThing } from '../sheet/thing'
import { clock } from '../ui/words'
import type { Stretch } from './camera'

const words = { small: 'The camera is small', large: 'The camera is large', hidden: 'The camera is not shown' }

function StretchNote({ stretch }: { stretch: Stretch }) {
  return (
    <p data-beside className="mb-1 ml-[92px] mr-4 mt-0.5 border border-lagoon px-3 py-0.5">
      <b className="text-lagoon">{words[stretch.shown]}</b> <span className="text-quiet">until {clock(stretch.span.end)}</span>
    </p>
  )
}

/** Where the camera is shown otherwise, while a lesson is tidied. */
export function useCameraNotes({ stage }: Looking): SheetThing[] {
  const { cameraStretches } = useWork().document
  return useMemo(
    () =>
      stage === 'tidy'
        ? cameraStretches.map((s) => ({ key: `camera ${s.id}`, at: s.span.start, place: 'below', px: 34, show: () => <StretchNote stretch={s} /> }))
        : [],
    [stage, cameraStretches],
  )
}
