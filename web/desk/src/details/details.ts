import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'
import { languageName } from '../ui/LanguageInput'

export type DetailSet = Schemas['DetailSet']
export type Field = Schemas['DetailFieldView']
export type Licence = Schemas['Licence']
export type Code = keyof DetailSet

/** All that can be said about lessons; it does not change while the page is open. */
export const useDetailForm = () => useQuery({ queryKey: ['detail-form'], queryFn: () => taken(api.GET('/api/details')), staleTime: Number.POSITIVE_INFINITY })

/** What is said about a lesson, and what holds at each outlet. */
export const useLessonDetails = (lessonId: string) =>
  useQuery({
    queryKey: ['details', lessonId],
    queryFn: () => taken(api.GET('/api/lessons/{id}/details', { params: { path: { id: lessonId } } })),
  })

/** Whether a set says something. */
export const says = (set: DetailSet, code: string) => set[code as Code] !== undefined && set[code as Code] !== null

/** Whether a detail is asked: some only where another is a yes. */
export const isAsked = ({ onlyWith }: Field, own: DetailSet, inherited: DetailSet) =>
  !onlyWith || (own[onlyWith as Code] ?? inherited[onlyWith as Code]) === true

/** A set with one detail as another says it, or without it. */
export function withDetail(set: DetailSet, code: string, value: unknown): DetailSet {
  const { [code as Code]: _, ...rest } = set
  return value === undefined || value === null || value === '' ? rest : { ...rest, [code]: value }
}

/** Words that were typed one after the other, as tags; each is there once. */
export function tagsOf(text: string): string[] {
  const tags = text.split(',').map((tag) => tag.trim().replaceAll(/\s+/g, ' '))
  return tags.filter((tag, i) => tag.length > 0 && tags.findIndex((other) => other.toLowerCase() === tag.toLowerCase()) === i)
}

/** How much of a title lists show: what stands there is cut off behind so many characters. */
export const shownInLists = 24

/** What sets name by an identifier. */
interface Known {
  licences: Licence[]
  profiles: { profile: Pick<Schemas['Profile'], 'id' | 'title'> }[]
}

/** What a set says of a detail, in a few words; nothing where it says nothing. */
export function inWords(field: Field, set: DetailSet, known: Known): string | undefined {
  if (!says(set, field.code)) return undefined
  switch (field.input) {
    case 'words':
      return set.tags?.length ? set.tags.join(', ') : 'none'
    case 'language':
      return languageName(set.language ?? '')
    case 'yesNo':
      return set[field.code as Code] ? 'yes' : 'no'
    case 'age':
      return set.fromAge === 0 ? 'all ages' : `${set.fromAge} years`
    case 'licence':
      return known.licences.find((l) => l.id === set.licence)?.name ?? set.licence ?? undefined
    case 'thirdParty':
      return set.thirdParty?.used ? set.thirdParty.permission : 'none'
    case 'profile':
      return known.profiles.find(({ profile }) => profile.id === set.downloadAs)?.profile.title ?? 'one that is gone'
    case 'author':
      return [set.author?.name, set.author?.contact].filter(Boolean).join(', ')
    default:
      return String(set[field.code as Code])
  }
}
