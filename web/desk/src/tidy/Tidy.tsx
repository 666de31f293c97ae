import type { Document } from '../lessons/useLesson'
import type { Cut } from '../sheet/blocks'
import type { Playback } from '../sheet/usePlayback'
import { Cuts } from './Cuts'
import { SelectedStretch } from './SelectedStretch'
import { SuggestedCuts } from './SuggestedCuts'
import type { Cutting } from './useCutting'
import type { Suggestions } from './useSuggestions'

interface Props {
  lessonId: string
  document: Document
  length: number
  frameMs: number
  soundEdges: number[]
  playback: Playback
  cutting: Cutting
  suggestions: Suggestions
  stretch: Cut | undefined
  setStretch: (stretch: Cut | undefined) => void
}

/** The tools of the tidy stage. */
export function Tidy({ suggestions, ...props }: Props) {
  return (
    <>
      <SelectedStretch {...props} />
      <SuggestedCuts suggestions={suggestions} playback={props.playback} />
      <Cuts {...props} />
    </>
  )
}
