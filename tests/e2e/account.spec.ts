import { createHmac } from 'node:crypto'
import { expect, test } from '@playwright/test'
import { hasNoAccessibilityFaults, signIn, trainer } from './help'

/** What an authenticator app shows: RFC 6238, six digits of HMAC-SHA-1 every 30 seconds. */
function code(key: string, at = Date.now()): string {
  const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'
  const bits = [...key.replace(/\s/g, '').toUpperCase()].map((sign) => alphabet.indexOf(sign).toString(2).padStart(5, '0')).join('')
  const secret = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => Number.parseInt(byte, 2)))
  const step = Buffer.alloc(8)
  step.writeBigUInt64BE(BigInt(Math.floor(at / 30_000)))
  const hash = createHmac('sha1', secret).update(step).digest()
  return String((hash.readUInt32BE(hash[19] & 15) & 0x7fffffff) % 1_000_000).padStart(6, '0')
}

test('a trainer sees where they are signed in, and signs another browser out', async ({ page, browser }) => {
  const elsewhere = await browser.newContext()
  const other = await elsewhere.newPage()
  await signIn(other)
  await signIn(page)
  await page.getByRole('navigation').getByRole('link', { name: 'Mara Tarn' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Your account' })).toBeVisible()
  const rows = page.getByRole('row').filter({ hasText: 'Chrom' })
  await expect(rows.filter({ hasText: 'this browser' })).toHaveCount(1)
  await hasNoAccessibilityFaults(page)
  // Tests before this one may have left some.
  for (let left = await page.getByRole('button', { name: 'Sign it out' }).count(); left > 0; left--) {
    await page.getByRole('button', { name: 'Sign it out' }).first().click()
    await expect(page.getByRole('button', { name: 'Sign it out' })).toHaveCount(left - 1)
  }
  await other.goto('/board')
  await expect(other.getByLabel('Password')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { level: 1, name: 'Your account' })).toBeVisible()
  await elsewhere.close()
})

test('a password that will not do is said where it stands', async ({ page }) => {
  await signIn(page)
  await page.goto('/account')
  const change = async (now: string, wanted: string, again = wanted) => {
    await page.getByLabel('Your password now').fill(now)
    await page.getByLabel('The new one, 10').fill(wanted)
    await page.getByLabel('The new one again').fill(again)
    await page.getByRole('button', { name: 'Change the password' }).click()
  }
  await change('Ferry-2026', 'a tern over the pier', 'a tern under the pier')
  await expect(page.getByText('The two are not the same.')).toBeVisible()
  await change('not this one', 'a tern over the pier')
  await expect(page.getByLabel('Your password now')).toHaveAccessibleDescription(/./)
  await change('Ferry-2026', 'password123')
  await expect(page.getByLabel('The new one, 10')).toHaveAccessibleDescription(/./)
  await hasNoAccessibilityFaults(page)
})

test('a code from an app is asked for beside the password, once it is set up', async ({ page }) => {
  await signIn(page)
  await page.goto('/account')
  const second = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Second factor' }) })
  await second.getByLabel('Your password').fill('Ferry-2026')
  await second.getByRole('button', { name: 'Set it up' }).click()
  const picture = second.getByRole('img', { name: /QR code/ })
  await expect(picture).toBeVisible()
  expect(await picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0)
  await hasNoAccessibilityFaults(page)
  const key = (await second.locator('p.font-mono').textContent()) as string
  await second.getByLabel('Code that the app shows').fill('000000')
  await second.getByRole('button', { name: 'Switch it on' }).click()
  await expect(second.getByLabel('Code that the app shows')).toHaveAccessibleDescription(/./)
  await second.getByLabel('Code that the app shows').fill(code(key))
  await second.getByRole('button', { name: 'Switch it on' }).click()
  const listed = second.getByRole('list', { name: 'Recovery codes' }).getByRole('listitem')
  await expect(listed).toHaveCount(10)
  const codes = await listed.allTextContents()
  await expect(second.getByText('On', { exact: true })).toBeVisible()

  await page.context().clearCookies()
  await page.goto('/sign-in')
  await page.getByLabel('Mail address').fill(trainer)
  await page.getByLabel('Password').fill('Ferry-2026')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByLabel('Code from your authenticator app').fill('123')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.getByLabel('Code from your authenticator app').fill(codes[0])
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL('/')

  await page.goto('/account')
  await second.getByLabel('Your password').fill('Ferry-2026')
  await second.getByRole('button', { name: 'Switch it off' }).click()
  await expect(second.getByText('Off', { exact: true })).toBeVisible()
})
