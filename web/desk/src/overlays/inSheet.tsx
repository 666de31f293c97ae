import { useMemo } from 'react'
import { useWork } from '../lessons/work'
import type { Looking, SheetThing } from '../sheet/thing'
import { AreaBox } from './AreaBox'
import { NoteBox } from './NoteBox'

/** About how high a box is, in pixels: closed, and while it is written. */
const px = { closed: 92, area: 640, note: 330 }

/** Places to click and notes, as boxes where they begin, while a lesson is marked up or tidied. */
export function useOverlays({ stage, selected, select }: Looking): SheetThing[] {
  const { areas, notes } = useWork().document
  return useMemo(() => {
    if (stage !== 'mark-up' && stage !== 'tidy') return []
    return [
      ...areas.map(
        (area): SheetThing => ({
          key: `area ${area.id}`,
          at: area.span.start,
          place: 'below',
          px: selected === area.id ? px.area : px.closed,
          show: (struck) => <AreaBox area={area} struck={struck} open={selected === area.id} select={select} />,
        }),
      ),
      ...notes.map(
        (note): SheetThing => ({
          key: `note ${note.id}`,
          at: note.span.start,
          place: 'below',
          px: selected === note.id ? px.note : px.closed,
          show: (struck) => <NoteBox note={note} struck={struck} open={selected === note.id} select={select} />,
        }),
      ),
    ]
  }, [areas, notes, stage, selected, select])
}
