import type { Schemas } from '../app/api'
import { count, lengthOf, size } from '../ui/words'

export type Place = Schemas['OutletView']
export type Offer = Schemas['ProfileOffer']
export type Phase = Schemas['ReleasePhase']
export interface Wish {
  on: boolean
  profileId: string
  visibility: Schemas['Visibility']
  named: Schemas['NamedPeople']
  opensAt: string | null
  endsAt: string | null
}

const underWay: Phase[] = ['planned', 'rendering', 'checking', 'packing', 'sending', 'processingThere']
export const isUnderWay = (phase: Phase | undefined) => phase !== undefined && underWay.includes(phase)

/** A place is chosen at first where what stands there is behind; where nothing stands, somebody says so. */
export function chosenAtFirst(place: Place): Wish {
  const usual = place.whoMaySee.some((w) => w.visibility === 'signedIn') ? 'signedIn' : 'withLink'
  return {
    on: Boolean(place.release?.behind) || (place.way?.phase === 'failed' && !place.way.takesDown),
    profileId: place.way?.profileId || place.release?.profileId || place.usualProfile,
    visibility: place.way?.visibility ?? place.release?.visibility ?? usual,
    named: place.way?.named ?? place.release?.named ?? { mails: [], groups: [] },
    opensAt: place.way?.opensAt ?? place.release?.opensAt ?? null,
    endsAt: place.way?.endsAt ?? place.release?.endsAt ?? null,
  }
}

/** What keeps a place from being released to, in a sentence; nothing where nothing does. */
export function inWay(place: Place, wish: Wish, offers: Offer[], missing: Schemas['Problem'][]): string | undefined {
  if (isUnderWay(place.way?.phase)) return place.way?.takesDown ? 'It is being taken down.' : 'It is on its way there.'
  const refused = place.refuses.find((r) => r.profileId === wish.profileId)
  if (refused) return refused.sentence
  const fault = offers.find((o) => o.id === wish.profileId)?.findings.find((f) => f.isFault)
  if (fault) return fault.sentence
  if (place.video && !place.video.place) return 'Choose the account and the channel.'
  if (place.video?.unfit) return place.video.unfit.sentence
  if (missing.length > 0) return missing.map((m) => m.sentence).join(' ')
  if (asksWho(place) && lacksNames(wish)) return 'Name who may see it.'
  const now = place.release
  const open = now?.visibility === wish.visibility && sameMoment(now.opensAt, wish.opensAt) && sameMoment(now.endsAt, wish.endsAt)
  if (place.video && now && (place.video.stage !== 'ready' || place.video.moves)) return undefined
  if (now && !now.behind && now.profileId === wish.profileId && open && place.way?.phase !== 'failed') return 'It stands there as it is wanted.'
  return undefined
}

const sameMoment = (a: string | null | undefined, b: string | null | undefined) => (a ? Date.parse(a) : 0) === (b ? Date.parse(b) : 0)

/** Whether it is asked at each release who may see it. */
export const asksWho = (place: Place) => place.whoMaySee.length > 0

/** Whether it must be asked if there is material of others in the lesson: before people outside the house can come to it for the first time. */
export const asksForPermission = (place: Place, wish: Wish) =>
  asksWho(place) ? isOpenToStrangers(wish.visibility) && !isOpenToStrangers(place.release?.visibility) : place.isOpen && !place.release

const isOpenToStrangers = (visibility: Schemas['Visibility'] | undefined) => visibility === 'withLink' || visibility === 'everybody'

/** Whether people are to be named, and none is. */
export const lacksNames = (wish: Wish) => wish.visibility === 'named' && wish.named.mails.length + wish.named.groups.length === 0

/** What a wish says of who may see it. */
export const openingOf = ({ visibility, named, opensAt, endsAt }: Wish) => ({ visibility, named, opensAt, endsAt })

/** What of what is handed on does not fit who may see it. */
export const unfit = (place: Place, wish: Wish) => place.unfit.find((u) => u.visibility === wish.visibility)?.sentence

/** How many there are, and how they stand. */
export function sayPlaces(places: Place[], chosen: number): string {
  const behind = places.filter((p) => p.release?.behind).length
  return [`${chosen === 0 ? 'none' : chosen} of ${places.length} chosen`, behind > 0 ? `${behind} behind` : undefined].filter(Boolean).join(', ')
}

/** The profiles of the files that a place gets: of the one that plays, and of one that learners download. */
export function profilesAt(wish: Wish, details: Schemas['DetailsAtOutlet'] | undefined): string[] {
  const { mayDownload, downloadAs } = details?.values ?? {}
  return mayDownload && downloadAs && details?.rules.some((r) => r.field === 'downloadAs') ? [wish.profileId, downloadAs] : [wish.profileId]
}

/** What the button will do, and how long that takes. */
export function sayWhatHappens(ready: Place[], held: Place[], profilesOf: (p: Place) => string[], offers: Offer[]): string {
  const waits = held.filter((p) => !isUnderWay(p.way?.phase) && !(p.release && !p.release.behind))
  const parts: string[] = []
  if (waits.length > 0) parts.push(`${waits.map((p) => p.name).join(' and ')} ${waits.length === 1 ? 'waits' : 'wait'} for what is missing.`)
  if (ready.length > 0) {
    const used = [...new Set(ready.flatMap(profilesOf))].map((id) => offers.find((o) => o.id === id)).filter((o): o is Offer => o !== undefined)
    const encodes = used.filter((o) => !o.nothingToEncode)
    const time = used.reduce((sum, o) => sum + o.estimate.time, 0)
    const made = encodes.length > 0 ? `${count(encodes.length, 'file')} ${encodes.length === 1 ? 'is' : 'are'} rendered` : 'Nothing is rendered'
    parts.push(`${made}; about ${lengthOf(time)} in all.`, 'You may go on elsewhere: a mail tells when it is there.')
  } else if (held.length > 0 && waits.length === 0) parts.push('Nothing is left to do for what is chosen.')
  return parts.join(' ')
}

/** The phase of a release, in words. */
export function phaseInWords(way: Schemas['WayView']): string {
  if (way.takesDown) {
    if (isUnderWay(way.phase)) return 'It is being taken down'
    if (way.phase === 'failed') return 'It could not be taken down'
  }
  switch (way.phase) {
    case 'planned':
      return 'It begins in a moment'
    case 'rendering':
      return 'Rendering'
    case 'checking':
      return 'Checking the file'
    case 'packing':
      return 'Packing'
    case 'sending':
      return way.bytesToSend ? `Sending, ${size(way.sentBytes)} of ${size(way.bytesToSend)}` : 'Sending'
    case 'processingThere':
      return 'Sent; the other side makes it ready'
    case 'failed':
      return 'It did not get there'
    case 'takenDown':
      return 'Taken down'
    default:
      return ''
  }
}
