import { createServer } from 'node:http'
import { expect, type Page, test } from '@playwright/test'
import Provider from 'oidc-provider'
import * as client from 'openid-client'
import { hasNoAccessibilityFaults, signIn, trainer } from './help'
import { ports } from './playwright.config'

const outside = `http://127.0.0.1:${ports.outside}`

async function showPass(page: Page, name: string, fault = 'nothing') {
  await page.goto('/sign-in?to=%2Faccount')
  await page.getByRole('link', { name: 'Sign in with Crew pass' }).click()
  await page.getByLabel('Crew name').fill(name)
  await page.getByLabel('Pass phrase').fill('Tide-2026')
  await page.getByLabel('What goes wrong').selectOption({ label: fault })
  await page.getByRole('button', { name: 'Show my pass' }).click()
}

test('somebody signs in by the organisation’s provider, and is signed out at both ends', async ({ page, context }) => {
  await showPass(page, 'wes')
  await expect(page.getByText('Wes Calder · wes.calder@brackwater.example')).toBeVisible()
  // Who has no password is not asked for it.
  await expect(page.getByLabel('Your password now')).toHaveCount(0)
  await hasNoAccessibilityFaults(page)

  // Put away there, it is over here (OpenID Connect Back-Channel Logout 1.0).
  const there = await context.newPage()
  await there.goto(`${outside}/identity`)
  await there.getByRole('button', { name: 'Put the pass away everywhere' }).click()
  await expect(there.getByText('wexel: 200')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()

  // Signed out here, it is over there: the pass must be shown again (OpenID Connect RP-Initiated Logout 1.0).
  await showPass(page, 'wes')
  await page.getByRole('button', { name: 'Sign out' }).click()
  await page.waitForURL('**/sign-in*')
  await there.goto(`${outside}/identity`)
  await expect(there.getByText('Nobody shows a pass in this browser.')).toBeVisible()
})

test('what goes wrong at the provider is said where one signs in', async ({ page }) => {
  await showPass(page, 'olu', 'signs with a key that is not its own')
  await expect(page.getByRole('alert')).toHaveText(/was not signed by Crew pass, so it is not believed/)
  await hasNoAccessibilityFaults(page)
  await page.context().clearCookies()
  await page.getByRole('link', { name: 'Sign in with Crew pass' }).click()
  await page.getByRole('button', { name: 'Rather not' }).click()
  await expect(page.getByRole('alert')).toHaveText(/You did not let Crew pass tell Wexel who you are/)
})

test('a passkey of a device signs in without a password, and is removed', async ({ page }) => {
  const devtools = await page.context().newCDPSession(page)
  await devtools.send('WebAuthn.enable')
  await devtools.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  })
  // By the machine's name: a number is nobody's domain.
  const named = `http://localhost:${ports.server}`
  await page.goto(`${named}/sign-in?to=%2Faccount`)
  await page.getByLabel('Mail address').fill(trainer)
  await page.getByLabel('Password').fill('Ferry-2026')
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  const add = page.getByRole('button', { name: 'Add a passkey' })
  await page.getByLabel('What the device is called, to know it again').fill('Quay laptop')
  await page.getByLabel('Your password', { exact: true }).first().fill('not my password')
  await add.click()
  await expect(page.getByText('That is not your password now.')).toBeVisible()
  await page.getByLabel('Your password', { exact: true }).first().fill('Ferry-2026')
  await add.click()
  await expect(page.getByText('Quay laptop')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await page.goto(`${named}/sign-in?to=%2Faccount`)
  await page.getByRole('button', { name: 'Sign in with it' }).click()
  await page.getByRole('button', { name: 'Remove the passkey Quay laptop' }).click()
  await expect(page.getByText('Quay laptop')).toHaveCount(0)
  await page.getByRole('button', { name: 'Sign out' }).click()
  // Signing out goes there by itself; going there meanwhile would be two ways at once.
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await page.goto(`${named}/sign-in`)
  await page.getByRole('button', { name: 'Sign in with it' }).click()
  await expect(page.getByRole('alert')).toHaveText(/opens no account here/)
})

test('the stand-in provider is one to an independent client (openid-client)', async ({ page }) => {
  const back = 'http://127.0.0.1:9/back'
  await page.goto(`${outside}/identity`)
  for (const [label, text] of [
    ['Name', 'independent'],
    ['Secret', 'herring'],
    ['Goes back to', back],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(text)
  await page.getByRole('button', { name: 'Let it in' }).click()
  const config = await client.discovery(new URL(outside), 'independent', 'herring', undefined, { execute: [client.allowInsecureRequests] })
  const verifier = client.randomPKCECodeVerifier()
  const [nonce, state] = [client.randomNonce(), client.randomState()]
  const asked = { redirect_uri: back, scope: 'openid email profile groups', nonce, state, code_challenge_method: 'S256' }
  await page.goto(client.buildAuthorizationUrl(config, { ...asked, code_challenge: await client.calculatePKCECodeChallenge(verifier) }).href)
  const answer = page.waitForRequest((r) => r.url().startsWith(back))
  await page.getByLabel('Crew name').fill('ida')
  await page.getByLabel('Pass phrase').fill('Tide-2026')
  await page.getByRole('button', { name: 'Show my pass' }).click()
  const tokens = await client.authorizationCodeGrant(config, new URL((await answer).url()), {
    pkceCodeVerifier: verifier,
    expectedNonce: nonce,
    expectedState: state,
    idTokenExpected: true,
  })
  expect(tokens.claims()).toMatchObject({ email: 'ida.fenn@brackwater.example', email_verified: true, name: 'Ida Fenn', groups: ['ticket desk', 'crew'] })
})

test('Wexel is a client to an independent provider (oidc-provider)', async ({ page, browser }) => {
  const issuer = `http://127.0.0.1:${ports.provider}`
  await signIn(page)
  await page.goto('/kit/sign-in')
  await page.getByRole('button', { name: 'Add a provider' }).click()
  const form = page.locator('section').filter({ hasText: 'A new one' })
  await form.getByLabel('Name, as it stands on the button').fill('Far shore')
  await form.getByLabel('Address of the provider (its issuer)').fill(issuer)
  await form.getByLabel('What Wexel is called there (client ID)').fill('wexel')
  await form.getByLabel('Secret', { exact: true }).fill('a secret of the far shore, long enough')
  await form.getByLabel('The organisation gives out its mail addresses').check()
  await form.getByRole('button', { name: 'Save' }).click()
  const known = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Far shore' }) })
  const back = await known.getByLabel('Goes back to').inputValue()
  await hasNoAccessibilityFaults(page)

  const far = new Provider(issuer, {
    clients: [
      {
        client_id: 'wexel',
        client_secret: 'a secret of the far shore, long enough',
        redirect_uris: [back],
        post_logout_redirect_uris: [await known.getByLabel('When signed out, to').inputValue()],
      },
    ],
    claims: { email: ['email', 'email_verified'], profile: ['name'] },
    findAccount: (_, id) => ({ accountId: id, claims: async () => ({ sub: id, email: `${id}@far-shore.example`, email_verified: true, name: 'Bo Far' }) }),
    pkce: { required: () => true },
  })
  const server = createServer(far.callback()).listen(ports.provider, '127.0.0.1')
  try {
    await known.getByRole('button', { name: 'Ask whether it answers' }).click()
    await expect(known.getByRole('status')).toHaveText(/It answers, with .* to sign by, and signs people out too/)
    const other = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage()
    await other.goto('/sign-in?to=%2Faccount')
    await other.getByRole('link', { name: 'Sign in with Far shore' }).click()
    await other.locator('input[name=login]').fill('bo')
    await other.locator('input[name=password]').fill('any')
    await other.locator('button[type=submit]').click()
    await other.locator('button[type=submit]').click()
    await expect(other.getByText('Bo Far · bo@far-shore.example')).toBeVisible()
    await other.getByRole('button', { name: 'Sign out' }).click()
    await other.locator('button[value=yes]').click()
    await other.waitForURL('**/sign-in*')
    await other.context().close()
  } finally {
    server.closeAllConnections()
    server.close()
  }
  page.once('dialog', (dialog) => dialog.accept())
  await known.getByRole('button', { name: 'Remove' }).click()
  await expect(page.getByRole('heading', { name: 'Far shore' })).toHaveCount(0)
})
