import { useMemo } from 'react'
import { useWork } from '../lessons/work'
import type { Looking, SheetThing } from '../sheet/thing'
import { SoundBox } from './SoundBox'

/** About how high a box is, in pixels: closed, and while it is changed. */
const px = { closed: 92, open: 430 }

/** Sounds under the voice, as boxes where they begin, while a lesson is tidied. */
export function useSounds({ stage, selected, select }: Looking): SheetThing[] {
  const { sounds } = useWork().document
  return useMemo(
    () =>
      stage === 'tidy'
        ? sounds.map(
            (bed): SheetThing => ({
              key: `sound ${bed.id}`,
              at: bed.span.start,
              place: 'below',
              px: selected === bed.id ? px.open : px.closed,
              show: (struck) => <SoundBox bed={bed} struck={struck} open={selected === bed.id} select={select} />,
            }),
          )
        : [],
    [sounds, stage, selected, select],
  )
}
