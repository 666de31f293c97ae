import { useQuery } from '@tanstack/react-query'
import { api, Refused, taken } from './api'

/** Who is signed in; null where nobody is. */
export function useMe() {
  return useQuery({
    queryKey: ['me'],
    queryFn: async () => {
      try {
        return await taken(api.GET('/api/me'))
      } catch (problem) {
        if (problem instanceof Refused && problem.status === 401) return null
        throw problem
      }
    },
    staleTime: Number.POSITIVE_INFINITY,
  })
}
