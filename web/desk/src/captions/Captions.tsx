import { useWork } from '../lessons/work'
import { AddCaptions } from './AddCaptions'
import { DraftState } from './DraftState'
import { FindAndReplace } from './FindAndReplace'
import { FromScript } from './FromScript'
import { OpenedCue } from './OpenedCue'
import { ShiftAll } from './ShiftAll'
import { ToLookAt } from './ToLookAt'
import { TrackRow } from './TrackRow'
import { useLook } from './useLook'
import { draftId } from './useText'

/** The caption tracks of a lesson, and what can be done with the one that is shown. */
export function Captions() {
  const { document, text } = useWork()
  const { draft } = text
  const look = useLook()
  const hasDraft = Boolean(draft && draft.cues.length > 0)
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="Captions">
      <h2>Captions</h2>
      <OpenedCue />
      {document.captions.length === 0 && !hasDraft && (
        <p className="mt-1 text-quiet">
          None yet. A draft comes by itself where speech is heard; or add a WebVTT, TTML or SubRip file, or a text whose lines begin with times.
        </p>
      )}
      <ul className="mt-1">
        {document.captions.map((track) => (
          <TrackRow key={track.id} track={track} />
        ))}
        {draft && (hasDraft || draft.state !== 'done') && <DraftState draft={draft} shown={!text.track} choose={() => text.choose(draftId)} />}
      </ul>
      <AddCaptions />
      <FromScript />
      {text.cues.length > 0 && (
        <>
          <ToLookAt look={look} />
          <FindAndReplace />
          <ShiftAll />
        </>
      )}
    </section>
  )
}
