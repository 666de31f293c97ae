import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'

export type VideoPlace = Schemas['VideoPlace']

/** The accounts at a video service, and where a lesson went last. */
export const useVideoAccounts = (outletId: string) =>
  useQuery({
    queryKey: ['video-accounts', outletId],
    queryFn: () => taken(api.GET('/api/outlets/{id}/video-accounts', { params: { path: { id: outletId } } })),
  })

/** Goes to the service, where somebody lets Wexel act for an account, and comes back to the outlet's page or to a lesson. */
export async function connect(outletId: string, lesson?: string) {
  const { address } = await taken(api.POST('/api/outlets/{id}/video-accounts', { params: { path: { id: outletId }, query: { lesson } } }))
  window.location.assign(address)
}
