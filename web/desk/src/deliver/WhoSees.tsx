import type { Schemas } from '../app/api'
import { Owner } from '../people/Owner'
import { useVisibilities } from '../people/usePeople'
import { NamedPeople } from './NamedPeople'
import { OpenTimes } from './OpenTimes'
import { type Place, unfit, type Wish } from './places'

interface Props {
  lessonId: string
  place: Place
  wish: Wish
  take: (change: Partial<Wish>) => void
}

/** Who may see a lesson at a place, from when and until when, with what that means. */
export function WhoSees({ lessonId, place, wish, take }: Props) {
  const levels = useVisibilities().data ?? []
  if (place.whoMaySee.length === 0) return <span className="text-quiet">{place.seenBy}</span>
  const matters = wish.on || Boolean(place.release)
  return (
    <>
      <select
        aria-label={`Who may see it on ${place.name}`}
        className="w-full border border-quiet/60 bg-field px-2 py-1"
        value={wish.visibility}
        onChange={(e) => take({ visibility: e.target.value as Schemas['Visibility'] })}
      >
        {levels
          .filter(({ level }) => place.whoMaySee.some((w) => w.visibility === level))
          .map(({ level, name }) => (
            <option key={level} value={level}>
              {name}
            </option>
          ))}
      </select>
      {matters && <p className="mt-1 text-small text-quiet">{place.whoMaySee.find((w) => w.visibility === wish.visibility)?.means}</p>}
      {matters && wish.visibility === 'onlyMe' && <Owner lessonId={lessonId} />}
      {matters && wish.visibility === 'named' && <NamedPeople place={place.name} named={wish.named} take={(named) => take({ named })} />}
      {matters && <OpenTimes place={place.name} opensAt={wish.opensAt} endsAt={wish.endsAt} take={take} />}
      {matters && unfit(place, wish) && <p className="mt-1 text-small text-amber">{unfit(place, wish)}</p>}
    </>
  )
}
