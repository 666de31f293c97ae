import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { FileCheck } from '../check/FileCheck'
import { useLessonDetails } from '../details/details'
import { ThirdPartyInput } from '../details/ThirdPartyInput'
import { useWork } from '../lessons/work'
import { InLists } from '../lists/InLists'
import { useLists } from '../lists/useLists'
import { Button } from '../ui/Button'
import { Waiting } from '../ui/Page'
import { Summary } from '../ui/Summary'
import { count } from '../ui/words'
import { MakeFiles } from './MakeFiles'
import { OpenWhenThere } from './OpenWhenThere'
import { PlaceRow } from './PlaceRow'
import { asksForPermission, chosenAtFirst, inWay, openingOf, type Place, profilesAt, sayPlaces, sayWhatHappens, type Wish } from './places'
import { Rights } from './Rights'
import { useDelivering } from './useDelivering'

/** The deliver stage: where the lesson is to go, what that comes to and what is missing there, and one button that does all of it. */
export function Deliver({ lessonId, revision, unsaved }: { lessonId: string; revision: number; unsaved: boolean }) {
  const client = useQueryClient()
  const { document, edit } = useWork()
  const { deliver, places } = useDelivering(lessonId)
  const details = useLessonDetails(lessonId).data
  const [wishes, setWishes] = useState<Record<string, Partial<Wish>>>({})
  const wishOf = (place: Place): Wish => ({ ...chosenAtFirst(place), ...wishes[place.id] })
  const wish = (place: Place, change: Partial<Wish>) => setWishes((now) => ({ ...now, [place.id]: { ...now[place.id], ...change } }))
  const offers = deliver.data?.profiles ?? []
  const at = (place: Place) => details?.outlets.find((o) => o.outletId === place.id)
  const missingAt = (place: Place) => at(place)?.missing ?? []
  const chosen = (places.data ?? []).filter((p) => wishOf(p).on)
  const unanswered = (place: Place) => asksForPermission(place, wishOf(place)) && !at(place)?.values.thirdParty && !document.details.thirdParty
  const ready = chosen.filter((p) => !unanswered(p) && !inWay(p, wishOf(p), offers, missingAt(p)))
  const held = chosen.filter((p) => !ready.includes(p))
  const finished = deliver.data?.renditions.filter((r) => r.state === 'done') ?? []
  // The file that is looked at: of what is to be released, or the last that was made.
  const file = finished.find((r) => chosen.some((p) => wishOf(p).profileId === r.profileId)) ?? finished[0]
  const refresh = () => {
    for (const key of [['releases', lessonId], ['deliver', lessonId], ['board'], ['lessons'], ['queue'], ['lists']]) client.invalidateQueries({ queryKey: key })
  }
  const onPages = (places.data ?? []).filter((p) => p.hasPages)
  const lists = useLists(
    lessonId,
    onPages.some((p) => p.release),
  )
  const release = useMutation({
    mutationFn: async (to: Place[]) => {
      if (to.some((p) => p.hasPages)) await lists.apply()
      return taken(
        api.POST('/api/releases', {
          body: {
            wishes: to.map((p) => ({ lessonId, outletId: p.id, profileId: wishOf(p).profileId, ...openingOf(wishOf(p)) })),
          },
        }),
      )
    },
    onError: (problem) => toast.error(problem.message),
    onSettled: refresh,
  })
  const stop =
    deliver.data?.notReady?.sentence ??
    (unsaved ? 'Your last change is being saved; a moment.' : chosen.length === 0 ? 'Choose where the lesson is to go.' : undefined)
  return (
    <div className="min-w-0 flex-1 overflow-y-auto px-6 pb-64">
      <Waiting query={places}>
        <section>
          <h2 className="border-b-2 border-ink py-3">
            Places <span className="font-normal text-quiet">· {sayPlaces(places.data ?? [], chosen.length)}</span>
          </h2>
          <ul>
            {places.data?.map((place) => (
              <PlaceRow
                key={place.id}
                lessonId={lessonId}
                revision={revision}
                place={place}
                wish={wishOf(place)}
                change={(change) => wish(place, change)}
                offers={offers}
                missing={missingAt(place)}
                details={at(place)}
                again={() => release.mutate([place])}
                changed={refresh}
              />
            ))}
          </ul>
          {places.data?.length === 0 && <p className="py-3">There is no outlet yet. Add one in the Kit.</p>}
          {onPages.some((p) => p.release || wishOf(p).on) && <InLists lists={lists} />}
          {chosen.some(unanswered) && (
            <div className="mt-3 border-l-2 border-amber pl-3">
              <p>
                Before people outside the house can come to it{' '}
                <span className="text-quiet">
                  (
                  {chosen
                    .filter(unanswered)
                    .map((p) => p.name)
                    .join(', ')}
                  )
                </span>
                :
              </p>
              <Rights lessonId={lessonId} revision={revision} />
              <ThirdPartyInput value={undefined} take={(given) => edit((d) => ({ ...d, details: { ...d.details, thirdParty: given } }))} />
            </div>
          )}
          <div className="mt-4 flex flex-wrap items-center gap-x-5 gap-y-2">
            {!stop && ready.length > 0 && (
              <Button onClick={() => release.mutate(ready)} disabled={release.isPending}>
                Release to {count(ready.length, 'place')}
              </Button>
            )}
            <OpenWhenThere places={places.data ?? []} />
            <p role="status" className={stop && chosen.length > 0 ? 'text-amber' : ''}>
              {stop ?? sayWhatHappens(ready, held, (p) => profilesAt(wishOf(p), at(p)), offers)}
            </p>
          </div>
        </section>
      </Waiting>
      {file && (
        <div className="mt-4 max-w-[640px]">
          <FileCheck rendition={file} />
        </div>
      )}
      <details className="mt-6 border-t border-hairline pt-3">
        <Summary>Only make the files</Summary>
        <MakeFiles lessonId={lessonId} revision={revision} unsaved={unsaved} />
      </details>
    </div>
  )
}
