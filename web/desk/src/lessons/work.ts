import { createContext, useContext } from 'react'
import type { Schemas } from '../app/api'
import type { Text } from '../captions/useText'
import type { Playback } from '../sheet/usePlayback'
import type { Document } from './useLesson'
import type { Reel } from './useLessons'

/** The lesson that is worked on: what all that stands on its page goes by. */
export interface Work {
  lessonId: string
  revision: number
  document: Document
  reel: Reel
  /** How long a frame of the lesson is. */
  frameMs: number
  cues: Schemas['Cue'][]
  /** The captions as they are corrected. */
  text: Text
  playback: Playback
  edit: (change: (d: Document) => Document) => void
}

export const WorkContext = createContext<Work | undefined>(undefined)

export function useWork(): Work {
  const work = useContext(WorkContext)
  if (!work) throw new Error('This stands on the page of a lesson alone.')
  return work
}
