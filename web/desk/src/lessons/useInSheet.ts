import { useMemo } from 'react'
import { useCameraNotes } from '../camera/inSheet'
import { useSaid } from '../captions/inSheet'
import { useScriptNotes } from '../captions/scriptInSheet'
import { useProposalNotes, useSections } from '../contents/inSheet'
import { useHardNotes, useMoveInNotes } from '../movein/inSheet'
import { useLearnerNotes } from '../notes/inSheet'
import { useOverlays } from '../overlays/inSheet'
import { useQuestions } from '../questions/inSheet'
import type { Looking, SheetThing } from '../sheet/thing'
import { useSounds } from '../sounds/inSheet'
import { useSurvey } from '../survey/inSheet'
import { useSuggestionNotes } from '../tidy/inSheet'

/** All that stands in the sheet; a new kind of placed things is one more list here. */
export function useInSheet(looking: Looking): SheetThing[] {
  const lists = [
    useSections(looking),
    useSaid(looking),
    useMoveInNotes(looking),
    useHardNotes(looking),
    useSuggestionNotes(looking),
    useProposalNotes(looking),
    useQuestions(looking),
    useOverlays(looking),
    useSounds(looking),
    useCameraNotes(looking),
    useSurvey(looking),
    useLearnerNotes(),
    useScriptNotes(looking),
  ]
  // biome-ignore lint/correctness/useExhaustiveDependencies: the lists are always as many
  return useMemo(() => lists.flat(), lists)
}
