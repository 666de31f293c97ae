import { api, taken } from './api'

/** Signs out here, and where one signed in by a provider, there too. */
export async function signOut() {
  const { next } = await taken(api.POST('/api/sign-out'))
  location.assign(next ?? '/')
}
