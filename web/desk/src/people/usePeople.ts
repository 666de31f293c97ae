import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'

export type People = Schemas['PeopleView']

/** People of the house, and the groups in which they are named. */
export const usePeople = (wanted = true) => useQuery({ queryKey: ['people'], queryFn: () => taken(api.GET('/api/people')), enabled: wanted })

/** The levels of who may see something, with what each means; they do not change while the server runs. */
export const useVisibilities = () =>
  useQuery({ queryKey: ['visibilities'], queryFn: () => taken(api.GET('/api/visibilities')), staleTime: Number.POSITIVE_INFINITY })
