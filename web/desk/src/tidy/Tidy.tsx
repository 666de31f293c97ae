import type { Document } from '../lessons/useLesson'
import type { Reel } from '../lessons/useLessons'
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
  revision: number
  document: Document
  reel: Reel
  length: number
  frameMs: number
  soundEdges: number[]
  /** A picture of the recording. */
  picture: string | undefined
  playback: Playback
  edit: (change: (d: Document) => Document) => void
  cutting: Cutting
  suggestions: Suggestions
  moveIns: MoveIns
  detail: Detail
  stretch: Cut | undefined
  setStretch: (stretch: Cut | undefined) => void
}

/** The tools of the tidy stage. */
export function Tidy({ reel, suggestions, edit, picture, moveIns, detail, ...props }: Props) {
  return (
    <>
      <SelectedStretch {...props} />
      <CanvasPanel reel={reel} part={props.playback.part} document={props.document} edit={edit} picture={picture} />
      <SuggestedCuts suggestions={suggestions} playback={props.playback} />
      <Cuts {...props} />
      <HardToRead detail={detail} acting={moveIns.acting} playback={props.playback} />
      <MoveInsPanel moveIns={moveIns} reel={reel} length={props.length} frameMs={props.frameMs} playback={props.playback} stretch={props.stretch} />
      <HouseMark document={props.document} edit={edit} />
      {reel.parts.some((p) => p.loudness) && (
        <section className="mt-4 border-t border-hairline pt-3" aria-label="Loudness">
          <h2>Loudness</h2>
          {reel.parts.map(
            (p) =>
              p.loudness && (
                <p key={p.span.start} className="mt-1 text-quiet">
                  {reel.parts.length > 1 ? `${p.fileName}: ${p.loudness}` : p.loudness}
                </p>
              ),
          )}
        </section>
      )}
    </>
  )
}
