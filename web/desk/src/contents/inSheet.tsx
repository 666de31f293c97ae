import { useMemo } from 'react'
import { useWork } from '../lessons/work'
import type { Looking, SheetThing } from '../sheet/thing'
import { ProposalBox } from './ProposalBox'
import { SectionHeading } from './SectionHeading'
import { numbersOf, stretchOf } from './sections'
import { useProposals } from './useProposals'

/** Sections, as headings of the sheet. */
export function useSections({ stage, selected, select }: Looking): SheetThing[] {
  const { document, reel, playback, edit } = useWork()
  const { sections } = document
  return useMemo(() => {
    const numbers = numbersOf(sections)
    return sections.map((section, i) => ({
      key: section.id,
      at: section.at,
      place: 'heading',
      px: 42,
      show: () => (
        <SectionHeading
          section={section}
          number={numbers[i]}
          until={stretchOf(sections, section.id, reel.length)?.end ?? reel.length}
          edit={edit}
          playback={playback}
          selected={selected === section.id}
          select={select}
          editable={stage === 'mark-up'}
        />
      ),
    }))
  }, [sections, reel.length, edit, playback, selected, select, stage])
}

/** Sections that are proposed, while a lesson is marked up. */
export function useProposalNotes({ stage }: Looking): SheetThing[] {
  const { playback } = useWork()
  const { proposals, take, leave } = useProposals()
  return useMemo(
    () =>
      stage === 'mark-up'
        ? proposals.map((p) => ({
            key: `proposal ${p.at}`,
            at: p.at,
            place: 'below',
            px: 44,
            show: () => <ProposalBox proposal={p} playback={playback} take={take} leave={leave} />,
          }))
        : [],
    [stage, proposals, playback, take, leave],
  )
}
