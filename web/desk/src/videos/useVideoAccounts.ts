import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'

export type VideoPlace = Schemas['VideoPlace']

/** The accounts at a video service, and where a lesson went last. */
export const useVideoAccounts = (outletId: string) =>
  useQuery({
    queryKey: ['video-accounts', outletId],
    queryFn: () => taken(api.GET('/api/outlets/{id}/video-accounts', { params: { path: { id: outletId } } })),
  })

/** Goes to the service, where somebody lets Wexel act for an account. */
export async function connect(outletId: string) {
  const { address } = await taken(api.POST('/api/outlets/{id}/video-accounts', { params: { path: { id: outletId } } }))
  window.location.assign(address)
}
