import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'

export type People = Schemas['PeopleView']
export type Person = Schemas['PersonEntry']
export type Group = Schemas['GroupEntry']

interface Wanted {
  /** Part of a name or an address. */
  find?: string
  /** Only those who make lessons and can sign in. */
  trainers?: boolean
  group?: string
}

/** People of the house, the first of those who are asked for. */
export const usePeople = (asked: Wanted = {}, wanted = true) =>
  useQuery({
    queryKey: ['people', asked],
    queryFn: () => taken(api.GET('/api/people', { params: { query: asked } })),
    enabled: wanted,
    placeholderData: keepPreviousData,
  })

export const useGroups = () => useQuery({ queryKey: ['groups'], queryFn: () => taken(api.GET('/api/groups')) })

/** The names of those of some mail addresses who have an account. */
export const useKnown = (mail: string[]) =>
  useQuery({
    queryKey: ['people', 'known', mail],
    queryFn: () => taken(api.GET('/api/people/known', { params: { query: { mail } } })),
    enabled: mail.length > 0,
    placeholderData: keepPreviousData,
  })

/** The levels of who may see something, with what each means; they do not change while the server runs. */
export const useVisibilities = () =>
  useQuery({ queryKey: ['visibilities'], queryFn: () => taken(api.GET('/api/visibilities')), staleTime: Number.POSITIVE_INFINITY })
