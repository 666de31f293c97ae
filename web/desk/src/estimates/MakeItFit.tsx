import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useEffect, useRef, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { numberOf } from '../ui/number'
import { Summary } from '../ui/Summary'
import { Estimate } from './Estimate'

interface Props {
  lessonId: string
  offer: Schemas['ProfileOffer']
  /** Takes the profile that was found instead of the one that was wanted. */
  take: (profileId: string) => void
}

/** Given a limit in MB, finds settings with which the lesson fits, and says what is given up for it. */
export function MakeItFit({ lessonId, offer, take }: Props) {
  const client = useQueryClient()
  const [typed, type] = useState('')
  const [problem, setProblem] = useState('')
  const stop = useRef<AbortController>(undefined)
  useEffect(() => () => stop.current?.abort(), [])
  const find = useMutation({
    mutationFn: (bytes: number) => {
      stop.current = new AbortController()
      return taken(api.POST('/api/lessons/{id}/fit', { params: { path: { id: lessonId } }, body: { profileId: offer.id, bytes }, signal: stop.current.signal }))
    },
  })
  const keep = useMutation({
    mutationFn: (profile: Schemas['Profile']) =>
      taken(api.POST('/api/profiles', { body: { ...profile, title: `${offer.title.slice(0, 36)}, at most ${typed.trim()} MB` } })),
    onSuccess: async (added) => {
      await Promise.all([['profiles'], ['deliver', lessonId]].map((queryKey) => client.invalidateQueries({ queryKey })))
      take(added.id)
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const megabytes = numberOf(typed)
    const wrong = typed.trim() === '' || !Number.isFinite(megabytes) || megabytes <= 0
    setProblem(wrong ? 'Type a size in MB, such as 10.' : '')
    if (!wrong) find.mutate(Math.round(megabytes * 1e6))
  }
  return (
    <details className="mt-1">
      <Summary>Make it fit a size</Summary>
      <form onSubmit={submit} noValidate className="mt-1 flex items-end gap-4">
        <Field
          label="At most, MB"
          inputMode="decimal"
          value={typed}
          onChange={(e) => type(e.target.value)}
          problem={problem}
          className="max-w-[120px] font-mono"
        />
        {find.isPending ? (
          <Button look="link" onClick={() => stop.current?.abort()}>
            Stop
          </Button>
        ) : (
          <Button type="submit" look="link">
            Find the settings
          </Button>
        )}
      </form>
      <div role="status" className="mt-1">
        {find.isPending && <p className="text-quiet">Encoding a few seconds with different settings…</p>}
        {find.error && !stop.current?.signal.aborted && <p className="text-brick">{find.error.message}</p>}
        {keep.error && <p className="text-brick">{keep.error.message}</p>}
        {find.data && (
          <>
            <Estimate estimate={find.data.estimate} encoded={null} />
            {find.data.givenUp.length === 0 ? (
              <p>It fits with “{offer.title}” as it is.</p>
            ) : (
              <>
                <ul>
                  {find.data.givenUp.map((sentence) => (
                    <li key={sentence}>{sentence}</li>
                  ))}
                </ul>
                <p className="mt-1">
                  <Button look="link" disabled={keep.isPending} onClick={() => keep.mutate((find.data as Schemas['FitView']).profile)}>
                    Take these settings
                  </Button>
                </p>
              </>
            )}
          </>
        )}
      </div>
    </details>
  )
}
