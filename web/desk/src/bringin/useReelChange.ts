import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import type { Document } from '../lessons/useLesson'

export type Wanted = Schemas['WantedRecording']
type Outcome = Schemas['ReelOutcome']

/** Changing which recordings a lesson is made of, and their order: done at once where nothing is lost, asked for where something is. */
export function useReelChange(document: Document, edit: (change: (d: Document) => Document) => void) {
  const [asked, setAsked] = useState<Outcome>()
  const change = (recordings: Wanted[]) =>
    taken(api.POST('/api/reels', { body: { document, recordings } })).then(
      (outcome) => (outcome.lost.length > 0 ? setAsked(outcome) : edit(() => outcome.document)),
      (refused: Error) => {
        toast.error(refused.message)
      },
    )
  return {
    asked,
    change,
    agree: () => {
      if (asked) edit(() => asked.document)
      setAsked(undefined)
    },
    leave: () => setAsked(undefined),
  }
}
