import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { MakeItFit } from '../estimates/MakeItFit'
import { useSampling } from '../estimates/useSampling'
import { RenditionState } from '../queue/RenditionState'
import { Button } from '../ui/Button'
import { Waiting } from '../ui/Page'
import { Summary } from '../ui/Summary'
import { TextLink } from '../ui/TextLink'
import { count, day } from '../ui/words'
import { ProfileLine } from './ProfileLine'

/** Only the files: one or several profiles, one button, and the check of what came of it. */
export function MakeFiles({ lessonId, revision, unsaved }: { lessonId: string; revision: number; unsaved: boolean }) {
  const client = useQueryClient()
  const [chosen, choose] = useState(['web'])
  const deliver = useQuery({
    queryKey: ['deliver', lessonId],
    queryFn: () => taken(api.GET('/api/lessons/{id}/deliver', { params: { path: { id: lessonId } } })),
    refetchInterval: (query) => (query.state.data?.notReady?.code === 'recording-not-looked-through' ? 2000 : 15_000),
  })
  const outlets = useQuery({ queryKey: ['outlets'], queryFn: () => taken(api.GET('/api/outlets')) })
  const render = useMutation({
    mutationFn: () => taken(api.POST('/api/renditions', { body: { lessons: [lessonId], profiles: chosen } })),
    onSuccess: (asked) => {
      for (const r of asked.refused) toast.error(`${r.profileTitle}: ${r.problem.sentence}`)
    },
    onError: (problem) => toast.error(problem.message),
    onSettled: () => {
      client.invalidateQueries({ queryKey: ['deliver', lessonId] })
      client.invalidateQueries({ queryKey: ['queue'] })
    },
  })
  const offers = deliver.data?.profiles ?? []
  const picked = offers.filter((p) => chosen.includes(p.id))
  const sampling = useSampling(lessonId, unsaved ? [] : picked)
  const fault = picked.flatMap((p) => p.findings).find((f) => f.isFault)
  const stop =
    deliver.data?.notReady?.sentence ??
    (unsaved ? 'Your last change is being saved; a moment.' : picked.length === 0 && deliver.data ? 'Choose at least one profile.' : fault?.sentence)
  const finished = deliver.data?.renditions.filter((r) => r.state === 'done') ?? []
  const done = finished.find((r) => chosen.includes(r.profileId)) ?? finished[0]
  const working = deliver.data?.renditions.filter((r) => r.state === 'waiting' || r.state === 'working') ?? []
  // What outlets take stands first; the rest is a click away, so that the button stays on the screen.
  const isUsual = (p: Schemas['ProfileOffer']) => !outlets.data || outlets.data.some((o) => o.usualProfile === p.id)
  const [usual, others] = [offers.filter(isUsual), offers.filter((p) => !isUsual(p))]
  const line = (p: Schemas['ProfileOffer']) => (
    <ProfileLine
      key={p.id}
      offer={p}
      chosen={chosen.includes(p.id)}
      sampling={sampling.has(p.id)}
      choose={(on) => choose((now) => (on ? [...now, p.id] : now.filter((id) => id !== p.id)))}
    />
  )
  const toEncode = picked.filter((p) => !p.nothingToEncode)
  return (
    <Waiting query={deliver}>
      <section className="mt-3 max-w-[640px]">
        <h2>Render</h2>
        <p role="status" className={`mt-1 ${stop ? 'text-amber' : ''}`}>
          {todo(stop, working.length, done?.revision === revision)}
        </p>
        <fieldset className="mt-1">
          <legend className="sr-only">Profiles</legend>
          {usual.map(line)}
          {others.length > 0 && (
            <details open={others.some((p) => chosen.includes(p.id)) || undefined}>
              <Summary className="py-1.5">{count(others.length, 'more profile')}</Summary>
              {others.map(line)}
            </details>
          )}
        </fieldset>
        {picked.length > 0 && (
          <p className="mt-2 text-quiet">
            {toEncode.length === 0
              ? 'Everything is encoded already; only titles, chapters and captions are put in.'
              : beforehand(picked.length, toEncode.length)}
          </p>
        )}
        {deliver.data && !deliver.data.notReady && (
          <p className="mt-1">
            <TextLink to={tryOut(lessonId, picked)}>Try two profiles side by side</TextLink>
          </p>
        )}
        {picked[0] && !fault && (
          <MakeItFit
            key={picked[0].id}
            lessonId={lessonId}
            offer={picked[0]}
            take={(id) => choose((now) => [...now.filter((other) => other !== picked[0]?.id), id])}
          />
        )}
        <div className="mt-2 flex items-center gap-4">
          <Button onClick={() => render.mutate()} disabled={Boolean(stop) || render.isPending}>
            {picked.length > 1
              ? `${toEncode.length === 0 ? 'Make' : 'Render'} ${picked.length} files`
              : toEncode.length === 0 && picked.length === 1
                ? 'Make the file'
                : 'Render'}
          </Button>
        </div>
        <ul className="mt-3">
          {deliver.data?.renditions.slice(0, 6).map((r) => (
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
        <p className="border-t border-hairline pt-1.5">
          <TextLink to={`/lessons/${lessonId}/made`}>Everything made of this lesson</TextLink>
        </p>
      </section>
    </Waiting>
  )
}

/** What is to be done next, in a line. */
function todo(stop: string | undefined, working: number, rendered: boolean) {
  if (stop) return stop
  if (working > 0) return `${working === 1 ? 'It is being rendered' : `${working} files are being rendered`}; you may go on elsewhere.`
  return rendered ? 'It is rendered as it stands. Look through its check.' : 'Choose what the lesson is to become, and render it.'
}

/** The first two that are chosen; another beside the first where only one is. */
function tryOut(lessonId: string, picked: Schemas['ProfileOffer'][]) {
  const [left, right] = [...picked.filter((p) => p.size).map((p) => p.id), 'web', 'small-480p'].filter((id, i, all) => all.indexOf(id) === i)
  return `/lessons/${lessonId}/try?left=${left}&right=${right}`
}

/** What will be made again and what will not, said before. */
function beforehand(files: number, encoding: number) {
  if (encoding === files)
    return files === 1 ? 'The picture and the sound are encoded.' : `${files} files are encoded in one go: the recording is read once for all of them.`
  return `${encoding} of ${files} must be encoded; the others are there already.`
}
