import { useMutation } from '@tanstack/react-query'
import { useId } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { DetailRows } from '../details/DetailRows'
import { useSavedSet } from '../details/useSavedSet'
import { Estimate } from '../estimates/Estimate'
import { Button } from '../ui/Button'
import { Summary } from '../ui/Summary'
import { PlaceThere } from '../videos/PlaceThere'
import { StandsThere } from '../videos/StandsThere'
import { TextInSizes } from '../videos/TextInSizes'
import { HandOn } from './HandOn'
import { PlaceState } from './PlaceState'
import { asksForPermission, inWay, isUnderWay, lacksNames, type Offer, openingOf, type Place, type Wish } from './places'
import { SmallestText } from './SmallestText'
import { WhoSees } from './WhoSees'

interface Props {
  lessonId: string
  revision: number
  place: Place
  wish: Wish
  change: (change: Partial<Wish>) => void
  offers: Offer[]
  missing: Schemas['Problem'][]
  details: Schemas['DetailsAtOutlet'] | undefined
  again: () => void
  changed: () => void
}

const where = { house: 'the house', outlet: 'this place', lesson: 'the lesson', release: 'here' } as const

/** On a narrow page what stands there is below who may see it. */
const columns = 'grid-cols-[28px_minmax(120px,170px)_minmax(160px,220px)_minmax(0,1fr)] max-[860px]:grid-cols-[28px_minmax(120px,1fr)_minmax(160px,240px)]'

/** One place: whether the lesson is to go there, who may see it, how it stands there, and what is missing. */
export function PlaceRow({ lessonId, revision, place, wish, change, offers, missing, details, again, changed }: Props) {
  const id = useId()
  const offer = offers.find((o) => o.id === wish.profileId)
  const why = inWay(place, wish, offers, missing)
  const under = isUnderWay(place.way?.phase)
  // What it would be like there matters once it is to go there.
  const stands = place.release && !place.release.behind && place.release.profileId === wish.profileId
  const known = (wish.on || Boolean(place.release)) && !stands
  const lacking = wish.on ? missing.filter((m) => m.field) : []
  const open = useMutation({
    mutationFn: (opening: Schemas['VisibilityRequest']) =>
      taken(api.PUT('/api/releases/{id}/visibility', { params: { path: { id: place.release?.id ?? '' } }, body: opening })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  const takeDown = useMutation({
    mutationFn: (release: string) => taken(api.DELETE('/api/releases/{id}', { params: { path: { id: release } } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  const stop = useMutation({
    mutationFn: (release: string) => taken(api.POST('/api/releases/{id}/stop', { params: { path: { id: release } } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  const said = useSavedSet(details?.release ?? {}, ['details', lessonId, place.id], (set) =>
    taken(api.PUT('/api/lessons/{id}/outlets/{outletId}/details', { params: { path: { id: lessonId, outletId: place.id } }, body: set })),
  )
  return (
    <li className={`grid ${columns} gap-x-3 border-b border-hairline py-3`} data-testid={`outlet-${place.kind}`}>
      <input id={id} type="checkbox" checked={wish.on} onChange={(e) => change({ on: e.target.checked })} className="mt-1 h-4 w-4 accent-copper" />
      <div>
        <label htmlFor={id} className="block cursor-pointer font-bold">
          {place.name}
        </label>
        <span className="text-small text-quiet">{place.kindName}</span>
      </div>
      <div>
        <WhoSees
          lessonId={lessonId}
          place={place}
          wish={wish}
          take={(said) => {
            const next = { ...wish, ...said }
            // Who may see what stands there is changed at once: nothing is made again for it. What must be asked before is asked with the release.
            const asks = asksForPermission(place, next) && !details?.values.thirdParty
            change(asks ? { ...said, on: true } : said)
            if (place.release && !asks && !lacksNames(next)) open.mutate(openingOf(next))
          }}
        />
      </div>
      <div className="min-w-0 max-[860px]:col-span-2 max-[860px]:col-start-2 max-[860px]:mt-2">
        <div className="flex flex-wrap items-baseline gap-x-4">
          <PlaceState place={place} />
          {under && (
            <Button look="link" className="text-small" onClick={() => stop.mutate(place.way?.id ?? '')}>
              Stop
            </Button>
          )}
        </div>
        {place.way?.phase === 'failed' && place.way.problem && (
          <p className="mt-1 text-brick">
            {place.way.problem.sentence}{' '}
            <Button look="link" onClick={place.way.takesDown ? () => takeDown.mutate(place.way?.id ?? '') : again}>
              Try again
            </Button>
          </p>
        )}
        {place.video && (wish.on || place.release) && <PlaceThere lessonId={lessonId} place={place} details={details} said={said} />}
        {place.video && <StandsThere place={place} again={again} changed={changed} />}
        {wish.on && why && !under && missing.length === 0 && !place.release && <p className="mt-1 text-amber">{why}</p>}
        {lacking.length > 0 && details && (
          <div className="mt-2 border-l-2 border-amber pl-3">
            <DetailRows
              codes={(field) => lacking.some((m) => m.field === field.code)}
              own={said.now}
              inherited={details.otherwise}
              from={(code) => where[details.from[code as keyof typeof details.from] as keyof typeof where]}
              change={said.change}
              missing={Object.fromEntries(lacking.map((m) => [m.field as string, m.sentence]))}
            />
          </div>
        )}
        {offer && (
          <div className="mt-1 flex flex-wrap items-baseline gap-x-2 text-small text-quiet">
            <select
              aria-label={`Profile for ${place.name}`}
              className="border border-hairline bg-field px-1 py-0.5 text-ink"
              value={wish.profileId}
              onChange={(e) => change({ profileId: e.target.value, on: true })}
            >
              {offers
                .filter((o) => !place.refuses.some((r) => r.profileId === o.id))
                .map((o) => (
                  <option key={o.id} value={o.id}>
                    {o.title}
                  </option>
                ))}
            </select>
            {place.refuses.length > 0 && (
              <details>
                <summary className="cursor-pointer py-1">why not {place.refuses.length === 1 ? 'one other' : `${place.refuses.length} others`}</summary>
                <ul>
                  {place.refuses.map((r) => (
                    <li key={r.profileId}>{r.sentence}</li>
                  ))}
                </ul>
              </details>
            )}
            {!stands && <Estimate estimate={offer.estimate} encoded={offer.encodedBytes} />}
          </div>
        )}
        {known && offer?.size && <p className="text-small text-quiet">{pictureThere(offer)}</p>}
        {wish.on && offer?.size && !stands && <SmallestText lessonId={lessonId} revision={revision} profile={offer.id} />}
        {place.video && wish.on && !stands && offer?.size && (
          <TextInSizes lessonId={lessonId} revision={revision} profile={wish.profileId} place={place} most={offer.size.height} />
        )}
        {known && place.titleThere && <p className="text-small text-quiet">{place.titleThere}</p>}
        {known && place.survives && <p className="text-small text-quiet">{place.survives}</p>}
        {place.handsOn && <HandOn outlet={place} />}
        {place.release && !(under && place.way?.takesDown) && (
          <p className="mt-1 flex gap-4">
            <Button look="link" className="text-small" onClick={() => takeDown.mutate(place.release?.id ?? '')}>
              Take it down
            </Button>
          </p>
        )}
        {(known || stands) && details && (
          <details className="mt-1 text-small">
            <Summary className="py-1">Say something else there alone</Summary>
            <div className="mt-2">
              <DetailRows
                codes={(field) => details.rules.some((r) => r.field === field.code)}
                own={said.now}
                inherited={details.otherwise}
                from={(code) => where[details.from[code as keyof typeof details.from] as keyof typeof where]}
                change={said.change}
              />
            </div>
          </details>
        )}
      </div>
    </li>
  )
}

/** What the place makes of the picture. */
function pictureThere(offer: Offer): string {
  const { size, scalePercent, wholeFactor } = offer
  if (!size) return ''
  const scale =
    scalePercent == null || scalePercent === 100
      ? 'as it was recorded'
      : `${Math.round(scalePercent)} % of the recording${wholeFactor ? '' : '; not a whole factor, which softens small text'}`
  return `Picture ${size.width} × ${size.height}, ${scale}.`
}
