import type { Schemas } from '../app/api'

/** Kinds of outlet that have pages of their own in the Kit, because more belongs to them than fields; all others have the page that fits every kind. */
const own: Record<string, { page: (id: string) => string; add: string; words: string }> = {
  podcastFeed: { page: (id) => `/kit/feeds/${id}`, add: '/kit/feeds/new', words: 'Settings, artwork and feed check' },
}

/** Where an outlet is changed, and what the link to it says. */
export function settingsOf(outlet: { id: string; kind: string }): { to: string; words: string } {
  const kind = own[outlet.kind]
  return kind ? { to: kind.page(outlet.id), words: kind.words } : { to: `/kit/outlets/${outlet.id}`, words: 'Name and settings' }
}

/** The page on which an outlet of a kind is added; undefined where the form that fits every kind does. */
export const addedOn = (kind: string): string | undefined => own[kind]?.add

/** Whether a name says nothing of what is there, also with another word for the place behind it. */
export function isGeneral(kind: Schemas['OutletKindView'], name: string): boolean {
  const words = name.trim().toLowerCase()
  return kind.generalNames.includes(words) || kind.generalNames.some((general) => words === `${general} ${kind.name}`)
}
