import { readFileSync } from 'node:fs'
import { expect, type Page, test } from '@playwright/test'
import * as client from 'openid-client'
import { Upload } from 'tus-js-client'
import { clip, hasNoAccessibilityFaults, rendered, saysNothingIsOfOthers, signIn } from './help'
import { ports } from './playwright.config'

const skerry = `http://127.0.0.1:${ports.server + 4}`

async function outlet(page: Page) {
  await page.goto('/kit')
  await page.getByRole('link', { name: 'Skerry' }).click()
  await expect(page.getByRole('heading', { name: 'Accounts' })).toBeVisible()
}

test('an account is connected at the service itself, and a lesson is published, changed there by hand, and looked at again', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  await outlet(page)
  await hasNoAccessibilityFaults(page)
  // Whoever does not want to comes back, and nothing is connected.
  await page.getByRole('button', { name: 'Connect an account' }).click()
  await page.getByRole('button', { name: 'Do not' }).click()
  await expect(page.getByRole('alert')).toContainText('was not allowed to let Wexel in')
  await page.getByRole('button', { name: 'Connect an account' }).click()
  await page.getByRole('button', { name: 'Let it in for Ticket desk' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'is connected' })).toContainText('“Ticket desk” is connected.')

  await rendered(page, clip('for skerry.mp4', 12), 'Reading the tide board', '0:00 The board\n0:06 The flood')
  const row = page.getByTestId('outlet-videoService')
  await row.getByRole('checkbox', { name: 'Skerry' }).check()
  await saysNothingIsOfOthers(page)
  // What it asks for that nobody said yet is asked here.
  await row.getByRole('textbox', { name: 'Description' }).fill('How the tide board is read.')
  await row.getByRole('textbox', { name: 'Tags' }).fill('tides')
  await row.getByRole('textbox', { name: 'Tags' }).blur()
  await expect(row.getByLabel('Account and channel at Skerry')).toContainText('Ticket desk, Desk lessons')
  await row.getByLabel('Category at Skerry').selectOption('Sea and weather')
  await row.getByRole('button', { name: 'New playlist' }).click()
  await row.getByLabel('Title of the new playlist').fill('Tides')
  await row.getByRole('button', { name: 'Add it' }).click()
  await expect(row.getByRole('checkbox', { name: 'Tides' })).toBeChecked()
  await page.getByRole('button', { name: 'Release to 1 place' }).click()
  await expect(row.getByText(/leads to a video that does not play yet|shows a small picture still/)).toBeVisible()
  await expect(row.getByText(/ready at \d\d:\d\d:\d\d at the earliest/)).toBeVisible()
  const [lesson, link] = [page.url(), await row.getByLabel('Link', { exact: true }).inputValue()]
  expect(link).toContain(`${skerry}/v/`)
  // Skerry takes a minute for it, but for whoever does not want to wait.
  await (await page.request.post(`${skerry}/studio/done`)).dispose()
  await expect(row.getByText('Plays in all sizes')).toBeVisible()
  await expect(row.getByLabel('Embed code')).toHaveValue(/^<iframe src="http:[^"]+\/e\/\w+"/)
  await hasNoAccessibilityFaults(page)

  // A learner there.
  const there = await page.context().newPage()
  await there.goto(link)
  await expect(there.locator('pre')).toHaveText('How the tide board is read.\n\nContents:\n0:00 The board\n0:06 The flood')
  expect(
    await there
      .locator('video')
      .evaluate((v: HTMLVideoElement) => new Promise((go) => (v.readyState > 0 ? go(v.duration) : v.addEventListener('loadedmetadata', () => go(v.duration))))),
  ).toBeCloseTo(12, 0)

  // Changed there by hand, it is shown side by side, and put back.
  await there.getByLabel('Title').fill('The tide board')
  await there.getByRole('button', { name: 'Change', exact: true }).click()
  await row.getByRole('button', { name: 'Look there now' }).click()
  await expect(row.getByRole('table')).toContainText('Reading the tide board')
  await expect(row.getByRole('table')).toContainText('The tide board')
  await hasNoAccessibilityFaults(page)
  await row.getByRole('button', { name: 'Put back what Wexel says' }).click()
  await expect(row.getByRole('table')).toHaveCount(0)
  await there.reload()
  await expect(there.getByRole('heading', { level: 1 })).toHaveText('Reading the tide board')

  // How often it was watched stands in the results.
  await page.goto('/results')
  const figures = page.getByRole('region', { name: 'At video services' })
  await expect(async () => {
    await page.reload()
    await expect(figures).toContainText(/\d+ views?/, { timeout: 2000 })
  }).toPass()
  await hasNoAccessibilityFaults(page)

  // Withdrawn there, it is said at the lesson, from which it is connected again.
  await there.goto(skerry)
  const allowed = there.getByRole('listitem').filter({ hasText: 'for ticket-desk' })
  while ((await allowed.count()) > 0) await allowed.first().getByRole('button', { name: 'Withdraw' }).click()
  await page.goto(lesson)
  await expect(row.getByText('Wexel may not act for', { exact: false })).toBeVisible()
  await row.getByRole('button', { name: 'Connect it again' }).click()
  await page.getByRole('button', { name: 'Let it in for Ticket desk' }).click()
  await expect(row.getByRole('status').filter({ hasText: 'is connected' })).toContainText('“Ticket desk” is connected.')
  await expect(row.getByLabel('Account and channel at Skerry')).toHaveValue(/desk-lessons$/)
  await hasNoAccessibilityFaults(page)

  // What its own sizes make of small letters is said before, of a lesson that has some.
  await page.goto('/')
  await page.getByRole('link', { name: 'Opening the desk' }).first().click()
  await page.getByRole('link', { name: 'Deliver' }).click()
  await row.getByRole('checkbox', { name: 'Skerry' }).check()
  await expect(row.getByText(/^Skerry makes its own sizes: smallest text [\d.]+ pixels high at 360\. Under \d+ it is hard to read/)).toBeVisible({
    timeout: 60_000,
  })
})

test('the service keeps to OAuth 2.0 and tus by the word of clients of others', async ({ page }) => {
  // RFC 6749, 4.1 and 6, with PKCE (RFC 7636), by openid-client.
  const config = new client.Configuration(
    { issuer: `${skerry}/`, authorization_endpoint: `${skerry}/door/authorize`, token_endpoint: `${skerry}/door/token` },
    'wexel',
    undefined,
    client.ClientSecretPost('tide-table'),
  )
  client.allowInsecureRequests(config)
  const verifier = client.randomPKCECodeVerifier()
  const redirect_uri = `http://127.0.0.1:${ports.server}/api/video-services/back`
  const asked = client.buildAuthorizationUrl(config, {
    redirect_uri,
    scope: 'publish offline_access',
    state: 'ours',
    code_challenge: await client.calculatePKCECodeChallenge(verifier),
    code_challenge_method: 'S256',
  })
  const comesBack = async () => {
    const back = page.waitForRequest((r) => r.url().startsWith(redirect_uri))
    await page.goto(asked.href)
    await page.getByRole('button', { name: 'Let it in for Ticket desk' }).click()
    return new URL((await back).url())
  }
  // RFC 9207: the answer names who gives it.
  const checks = { expectedState: 'ours' }
  await expect(client.authorizationCodeGrant(config, await comesBack(), { ...checks, pkceCodeVerifier: client.randomPKCECodeVerifier() })).rejects.toThrow()
  const tokens = await client.authorizationCodeGrant(config, await comesBack(), { ...checks, pkceCodeVerifier: verifier })
  expect(tokens.refresh_token).toBeTruthy()
  const fresh = await client.refreshTokenGrant(config, tokens.refresh_token as string)
  expect(fresh.access_token).not.toBe(tokens.access_token)
  const headers = { Authorization: `Bearer ${fresh.access_token}` }
  expect((await (await fetch(`${skerry}/api/account`, { headers })).json()).name).toBe('Ticket desk')
  expect((await fetch(`${skerry}/api/account`)).status).toBe(401)

  // tus 1.0.0, core protocol, by tus-js-client.
  const file = readFileSync(clip('by tus.mp4', 4))
  const begun = await fetch(`${skerry}/api/videos`, {
    method: 'POST',
    headers: { ...headers, 'Content-Type': 'application/json' },
    body: JSON.stringify({
      channel: 'desk-lessons',
      key: 'by tus',
      bytes: file.length,
      texts: { title: 'By tus', description: 'd', tags: ['t'], category: 'Work', madeForChildren: false, visibility: 'unlisted' },
    }),
  })
  expect(begun.status).toBe(201)
  await new Promise<void>((done, failed) =>
    new Upload(file, {
      uploadUrl: new URL(begun.headers.get('Location') as string, skerry).href,
      headers,
      chunkSize: 1000,
      onSuccess: () => done(),
      onError: failed,
    }).start(),
  )
  const { id } = await begun.json()
  expect((await (await fetch(`${skerry}/api/videos/${id}`, { headers })).json()).state).not.toBe('uploading')
})
