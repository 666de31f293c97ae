import { useMemo } from 'react'
import { useWork } from '../lessons/work'
import type { SheetThing } from '../sheet/thing'

/** Captions, as what is said. */
export function useSaid(): SheetThing[] {
  const { cues, playback } = useWork()
  const { seek } = playback
  return useMemo(
    () =>
      cues.map((cue) => ({
        key: cue.id,
        at: cue.span.start,
        place: 'said',
        text: cue.text,
        px: 0,
        show: (struck) => (
          <p className="mb-1">
            <button
              type="button"
              onClick={() => seek(cue.span.start)}
              className={`whitespace-pre-line text-left hover:text-copper ${struck ? 'line-through' : ''}`}
            >
              {cue.text}
            </button>
          </p>
        ),
      })),
    [cues, seek],
  )
}
