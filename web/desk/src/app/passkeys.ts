import { api, type Schemas, taken } from './api'

/** Why this browser can have no passkey here; undefined where it can. A passkey belongs to a name (Web Authentication, section 5.1.3), never to a number. */
export function noPasskeysBecause(): string | undefined {
  if (!('PublicKeyCredential' in window) || !PublicKeyCredential.parseCreationOptionsFromJSON) return 'This browser keeps no passkeys, or only over TLS.'
  if (/^[\d.]+$|:/.test(location.hostname)) return 'Passkeys belong to a server’s name, and this page was opened by its number.'
  return undefined
}

const answered = (credential: Credential | null) => (credential as PublicKeyCredential).toJSON() as Schemas['JsonElement']

/** Has the device make a key for this account. */
export async function newPasskey(name: string, password: string) {
  const { said } = await taken(api.POST('/api/me/passkeys/begun', { body: { password } }))
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(said as unknown as PublicKeyCredentialCreationOptionsJSON)
  const made = answered(await byDevice(() => navigator.credentials.create({ publicKey })))
  await taken(api.POST('/api/me/passkeys', { body: { name, said: made } }))
}

/** Signs in by a key that the device keeps. */
export async function signInByPasskey() {
  const { said } = await taken(api.POST('/api/sign-in/passkey/asked'))
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(said as unknown as PublicKeyCredentialRequestOptionsJSON)
  const shown = answered(await byDevice(() => navigator.credentials.get({ publicKey })))
  await taken(api.POST('/api/sign-in/passkey', { body: { said: shown } }))
}

/** What the device refuses, in words: browsers say little of why, so that no page learns which keys there are. */
async function byDevice(ask: () => Promise<Credential | null>) {
  try {
    return await ask()
  } catch (refused) {
    if ((refused as Error).name === 'InvalidStateError') throw new Error('This device has a passkey for your account already.')
    throw new Error('The device gave no passkey: it was stopped, took too long, or has none for this server.')
  }
}
