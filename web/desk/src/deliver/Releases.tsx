import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { Waiting } from '../ui/Page'
import { day } from '../ui/words'
import { HandOn } from './HandOn'

interface Props {
  lessonId: string
  /** The profiles that are chosen above. */
  chosen: string[]
  offers: Schemas['ProfileOffer'][]
  unsaved: boolean
}

/** The outlets, one button each, and what is to be handed on. */
export function Releases(props: Props) {
  const releases = useQuery({
    queryKey: ['releases', props.lessonId],
    queryFn: () => taken(api.GET('/api/lessons/{id}/releases', { params: { path: { id: props.lessonId } } })),
  })
  return (
    <section className="mt-4 border-t border-hairline pt-3">
      <h2>Release</h2>
      <Waiting query={releases}>
        {releases.data?.map((outlet) => (
          <OutletRow key={outlet.id} outlet={outlet} {...props} />
        ))}
      </Waiting>
    </section>
  )
}

function OutletRow({ outlet, lessonId, chosen, offers, unsaved }: Props & { outlet: Schemas['OutletView'] }) {
  const client = useQueryClient()
  // What the outlet does not take is not asked of the trainer: what it usually takes is picked, and the reason stands below.
  const refused = (id: string) => outlet.refuses.find((r) => r.profileId === id)?.sentence
  const profileId = chosen.find((id) => !refused(id)) ?? outlet.usualProfile
  const whyNot = chosen.length > 0 && chosen.every(refused) ? refused(chosen[0] as string) : undefined
  const offer = offers.find((o) => o.id === profileId)
  const ready = Boolean(offer?.nothingToEncode) && !unsaved
  const now = outlet.release
  const [visibility, setVisibility] = useState<Schemas['Visibility']>(now?.visibility ?? 'signedIn')
  const refresh = () => {
    for (const key of [['releases', lessonId], ['board'], ['lessons']]) client.invalidateQueries({ queryKey: key })
  }
  const release = useMutation({
    mutationFn: () =>
      taken(api.POST('/api/lessons/{id}/releases', { params: { path: { id: lessonId } }, body: { outletId: outlet.id, profileId, visibility } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: refresh,
  })
  const takeDown = useMutation({
    mutationFn: (id: string) => taken(api.DELETE('/api/releases/{id}', { params: { path: { id } } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: refresh,
  })
  const again = now && (now.behind || now.profileId !== profileId || (outlet.hasPages && now.visibility !== visibility))
  return (
    <div className="border-b border-hairline py-3" data-testid={`outlet-${outlet.kind}`}>
      <p className="flex justify-between gap-2">
        <span>
          <b>{outlet.name}</b> <span className="text-quiet">{outlet.kindName}</span>
        </span>
        <span className="shrink-0">
          {now ? (
            <Mark kind={now.behind ? 'behind' : 'live'}>
              {now.behind ? 'Behind' : 'Live'} since {day(now.releasedAt)}
            </Mark>
          ) : (
            <Mark kind="nothing">Not there</Mark>
          )}
        </span>
      </p>
      {outlet.titleThere && <p className="text-small text-quiet">{outlet.titleThere}</p>}
      {whyNot && !now && <p className="text-small text-quiet">{whyNot}</p>}
      {outlet.hasPages && (
        <fieldset className="mt-1 flex gap-4">
          <legend className="sr-only">Who may see it on {outlet.name}</legend>
          {(
            [
              ['signedIn', 'Signed-in people'],
              ['withLink', 'Whoever has the link'],
            ] as const
          ).map(([value, label]) => (
            <label key={value} className="flex items-center gap-1.5">
              <input
                type="radio"
                name={`visibility-${outlet.id}`}
                checked={visibility === value}
                onChange={() => setVisibility(value)}
                className="h-4 w-4 accent-copper"
              />
              {label}
            </label>
          ))}
        </fieldset>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        {(!now || again) &&
          (ready ? (
            <Button onClick={() => release.mutate()} disabled={release.isPending}>
              {now ? 'Bring up to date' : outlet.action}
            </Button>
          ) : (
            <span className="text-amber">{offer ? `Render “${offer.title}” first; then it can be released.` : 'It can be released once it is rendered.'}</span>
          ))}
        {now && (
          <Button look="link" onClick={() => takeDown.mutate(now.id)}>
            Take it down
          </Button>
        )}
      </div>
      {now && <HandOn outlet={outlet} release={now} onSent={refresh} />}
    </div>
  )
}
