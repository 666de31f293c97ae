import { type QueryClient, useQuery } from '@tanstack/react-query'
import { api, taken } from '../app/api'

/** The outlets of the house. */
export const useOutlets = () => useQuery({ queryKey: ['outlets'], queryFn: () => taken(api.GET('/api/outlets')) })

/** The kinds of outlet that there are; they do not change while the server runs. */
export const useOutletKinds = () =>
  useQuery({ queryKey: ['outlet-kinds'], queryFn: () => taken(api.GET('/api/outlet-kinds')), staleTime: Number.POSITIVE_INFINITY })

/** Has everything fetched again that shows outlets. */
export const outletsChanged = (client: QueryClient) =>
  Promise.all(['outlets', 'board', 'releases', 'profiles', 'deliver'].map((key) => client.invalidateQueries({ queryKey: [key] })))
