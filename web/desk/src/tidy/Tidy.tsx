import type { Document } from '../lessons/useLesson'
import type { Cut } from '../sheet/blocks'
import type { Playback } from '../sheet/usePlayback'
import { CanvasPanel } from './CanvasPanel'
import { Cuts } from './Cuts'
import { HouseMark } from './HouseMark'
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
  /** What happens to the loudness, in a sentence. */
  loudness: string | null
  /** A picture of the recording. */
  picture: string | undefined
  playback: Playback
  edit: (change: (d: Document) => Document) => void
  cutting: Cutting
  suggestions: Suggestions
  stretch: Cut | undefined
  setStretch: (stretch: Cut | undefined) => void
}

/** The tools of the tidy stage. */
export function Tidy({ suggestions, loudness, edit, picture, ...props }: Props) {
  return (
    <>
      <SelectedStretch {...props} />
      <SuggestedCuts suggestions={suggestions} playback={props.playback} />
      <Cuts {...props} />
      <CanvasPanel lessonId={props.lessonId} document={props.document} edit={edit} picture={picture} />
      <HouseMark document={props.document} edit={edit} />
      {loudness && (
        <section className="mt-4 border-t border-hairline pt-3" aria-label="Loudness">
          <h2>Loudness</h2>
          <p className="mt-1 text-quiet">{loudness}</p>
        </section>
      )}
    </>
  )
}
