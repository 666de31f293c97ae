import type { Document } from '../lessons/useLesson'
import { HardToRead } from '../movein/HardToRead'
import { MoveInsPanel } from '../movein/MoveInsPanel'
import type { Detail } from '../movein/useDetail'
import type { MoveIns } from '../movein/useMoveIns'
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
  moveIns: MoveIns
  detail: Detail
  recorded: { width: number; height: number } | undefined
  stretch: Cut | undefined
  setStretch: (stretch: Cut | undefined) => void
}

/** The tools of the tidy stage. */
export function Tidy({ suggestions, loudness, edit, picture, moveIns, detail, recorded, ...props }: Props) {
  return (
    <>
      <SelectedStretch {...props} />
      <SuggestedCuts suggestions={suggestions} playback={props.playback} />
      <Cuts {...props} />
      <HardToRead detail={detail} acting={moveIns.acting} playback={props.playback} />
      <MoveInsPanel moveIns={moveIns} recorded={recorded} length={props.length} frameMs={props.frameMs} playback={props.playback} stretch={props.stretch} />
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
