import { CameraPanel } from '../camera/CameraPanel'
import { useWork } from '../lessons/work'
import { HardToRead } from '../movein/HardToRead'
import { MoveInsPanel } from '../movein/MoveInsPanel'
import { SoundsPanel } from '../sounds/SoundsPanel'
import { CanvasPanel } from './CanvasPanel'
import { Cuts } from './Cuts'
import { HouseMark } from './HouseMark'
import { SelectedStretch } from './SelectedStretch'
import { SuggestedCuts } from './SuggestedCuts'
import { useTidying } from './tidying'

/** The tools of the tidy stage. */
export function Tidy({ select }: { select: (id: string | undefined) => void }) {
  const { document, reel, edit, playback } = useWork()
  const { suggestions, moveIns, detail } = useTidying()
  return (
    <>
      <SelectedStretch />
      <CanvasPanel />
      <SuggestedCuts suggestions={suggestions} playback={playback} />
      <Cuts />
      <HardToRead detail={detail} acting={moveIns.acting} playback={playback} />
      <MoveInsPanel />
      <SoundsPanel select={select} />
      <CameraPanel />
      <HouseMark document={document} edit={edit} />
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
