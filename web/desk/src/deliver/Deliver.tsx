import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { RenditionState } from '../queue/RenditionState'
import { Button } from '../ui/Button'
import { Waiting } from '../ui/Page'
import { about, day, size } from '../ui/words'
import { FileCheck } from './FileCheck'
import { Releases } from './Releases'

/** The deliver stage: a profile, one button, the check, and the outlets. */
export function Deliver({ lessonId, unsaved }: { lessonId: string; unsaved: boolean }) {
  const client = useQueryClient()
  const [chosen, choose] = useState('web')
  const deliver = useQuery({
    queryKey: ['deliver', lessonId],
    queryFn: () => taken(api.GET('/api/lessons/{id}/deliver', { params: { path: { id: lessonId } } })),
    refetchInterval: (query) => (query.state.data?.notReady?.code === 'recording-not-looked-through' ? 2000 : 15_000),
  })
  const render = useMutation({
    mutationFn: () => taken(api.POST('/api/lessons/{id}/renditions', { params: { path: { id: lessonId } }, body: { profileId: chosen } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: () => {
      client.invalidateQueries({ queryKey: ['deliver', lessonId] })
      client.invalidateQueries({ queryKey: ['queue'] })
    },
  })
  const offer = deliver.data?.profiles.find((p) => p.id === chosen)
  const stop = deliver.data?.notReady?.sentence ?? (unsaved ? 'Your last change is being saved; a moment.' : undefined)
  const finished = deliver.data?.renditions.filter((r) => r.state === 'done') ?? []
  const done = finished.find((r) => r.profileTitle === offer?.title) ?? finished[0]
  return (
    <Waiting query={deliver}>
      <section className="mt-4 border-t border-hairline pt-3">
        <h2>Render</h2>
        <fieldset className="mt-1">
          <legend className="sr-only">Profile</legend>
          {deliver.data?.profiles.map((p) => (
            <label key={p.id} className="grid cursor-pointer grid-cols-[20px_1fr] border-b border-hairline py-1.5">
              <input type="radio" name="profile" value={p.id} checked={chosen === p.id} onChange={() => choose(p.id)} className="mt-1 h-4 w-4 accent-copper" />
              <span>
                <b>{p.title}</b>{' '}
                <span className="font-mono text-[13px] text-quiet">
                  {p.size.width} × {p.size.height} · level {p.level}
                </span>
                <span className="block">
                  about {size(p.estimatedBytes)}, {p.nothingToEncode ? 'made already' : `${about(p.estimatedTime / 1000)} on this machine`}
                </span>
                {!p.wholeFactor && <span className="block text-amber">{p.scalePercent.toFixed(1)} % of the recorded size, not a whole factor: small text gets softer</span>}
              </span>
            </label>
          ))}
        </fieldset>
        <div className="mt-3 flex items-center gap-4">
          <Button onClick={() => render.mutate()} disabled={Boolean(stop) || render.isPending || !offer}>
            {offer?.nothingToEncode ? 'Make the file' : 'Render'}
          </Button>
          {stop && (
            <span role="status" className="text-amber">
              {stop}
            </span>
          )}
        </div>
        <ul className="mt-3">
          {deliver.data?.renditions.slice(0, 4).map((r) => (
            <li key={r.id} className="border-t border-hairline py-1.5">
              <span className="text-quiet">
                {r.profileTitle} · revision {r.revision} · {day(r.requestedAt)}
              </span>
              <div>
                <RenditionState rendition={r} />
              </div>
            </li>
          ))}
        </ul>
      </section>
      {done && <FileCheck rendition={done} />}
      <Releases lessonId={lessonId} chosen={chosen} offers={deliver.data?.profiles ?? []} unsaved={unsaved} />
    </Waiting>
  )
}
