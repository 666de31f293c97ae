import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import type { Playback } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { clock, exactClock } from '../ui/words'

interface Props {
  lessonId: string
  revision: number
  playback: Playback
}

/** Makes two lessons of one at the playing position, after saying what that comes to. */
export function SplitLesson({ lessonId, revision, playback }: Props) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const [asked, setAsked] = useState<{ at: number; outcome?: Schemas['SplitOutcome']; problem?: string }>()
  const params = { path: { id: lessonId } }
  const ask = () => {
    const at = playback.now()
    taken(api.POST('/api/lessons/{id}/split/outcome', { params, body: { basedOn: revision, at } })).then(
      (outcome) => setAsked({ at, outcome }),
      (refused: Error) => setAsked({ at, problem: refused.message }),
    )
  }
  const split = (at: number) =>
    taken(api.POST('/api/lessons/{id}/split', { params, body: { basedOn: revision, at } })).then(
      (done) => {
        setAsked(undefined)
        client.invalidateQueries({ queryKey: ['lesson', lessonId] })
        client.invalidateQueries({ queryKey: ['lessons'] })
        toast(`“${done.title || 'The new lesson'}” follows this one.`, {
          action: { label: 'Open it', onClick: () => navigate(`/lessons/${done.lessonId}/tidy`) },
        })
      },
      (refused: Error) => setAsked({ at, problem: refused.message }),
    )
  return (
    <div className="mt-2">
      <Button look="link" onClick={ask}>
        Split into two lessons here
      </Button>
      {asked?.problem && (
        <p role="alert" className="mt-1 text-amber">
          {asked.problem}
        </p>
      )}
      {asked?.outcome && (
        <>
          <p role="status" className="mt-1 text-quiet">
            At {exactClock(asked.at)}: this lesson would be {clock(asked.outcome.first)} long, and one of {clock(asked.outcome.second)} would follow it. Both
            keep the whole recording; the other’s part is cut, and can be restored.
          </p>
          <div className="mt-1 flex items-center gap-4">
            <Button onClick={() => split(asked.at)}>Split</Button>
            <Button look="link" onClick={() => setAsked(undefined)}>
              Leave it whole
            </Button>
          </div>
        </>
      )}
    </div>
  )
}
