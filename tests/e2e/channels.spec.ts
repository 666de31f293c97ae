import { expect, test } from '@playwright/test'
import { hasNoAccessibilityFaults, learner, signIn } from './help'

test.describe.configure({ timeout: 300_000 })

test('a learner finds lessons on a channel, in teaching order or in another that is kept', async ({ page }) => {
  await signIn(page, learner)
  await expect(async () => {
    await page.goto('/channel')
    await page.getByRole('link', { name: 'Opening the desk' }).waitFor({ timeout: 1000 })
  }).toPass({ timeout: 280_000 })
  await hasNoAccessibilityFaults(page)
  await page.getByRole('navigation', { name: 'Channels' }).getByRole('link', { name: 'Staff channel' }).click()
  await expect(page).toHaveURL(/\/c\/staff-channel$/)
  await expect(page.getByRole('heading', { level: 1, name: 'Staff channel' })).toBeVisible()
  await expect(page.getByRole('heading', { level: 2, name: 'Ticket desk basics' })).toBeVisible()
  const first = page.getByRole('listitem').first()
  await expect(first.getByRole('heading', { level: 3, name: 'Opening the desk' })).toBeVisible()
  await expect(first.getByText(/Seen|To \d|Next|Not seen/)).toBeVisible()
  await hasNoAccessibilityFaults(page)

  // The order is the learner's, and is kept; subjects narrow the list.
  await page.getByRole('navigation', { name: 'Order' }).getByRole('link', { name: 'newest' }).click()
  await expect(page.getByRole('navigation', { name: 'Order' }).getByText('newest')).toHaveAttribute('aria-current', 'true')
  await page.goto('/c/staff-channel')
  await expect(page.getByRole('navigation', { name: 'Order' }).getByText('newest')).toHaveAttribute('aria-current', 'true')
  await page.getByRole('link', { name: 'in teaching order' }).click()
  await page.getByRole('complementary').getByRole('link').first().click()
  await expect(page.getByText(/^Filed under/)).toBeVisible()
  expect(await page.getByRole('listitem').count()).toBeGreaterThan(0)

  // On a phone, without scripts, and with text of twice the size.
  await page.setViewportSize({ width: 360, height: 740 })
  await page.addStyleTag({ content: 'html { font-size: 200% } body { font-size: 34px }' })
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360)
  expect(await page.locator('script').count()).toBe(0)

  expect((await page.goto('/c/nowhere'))?.status()).toBe(404)
  await page.context().clearCookies()
  // Strangers see what is for everybody, and the way in.
  await page.goto('/c/staff-channel')
  await expect(page.getByRole('link', { name: 'Opening the desk' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Sign in' })).toBeVisible()
})

test('two channels cannot have one short address', async ({ page }) => {
  await signIn(page)
  await page.goto('/kit/outlets/new')
  await page.getByRole('radio', { name: /^channel/i }).check()
  // A name for everything is advised against, and better ones are offered.
  await page.getByLabel('Name', { exact: true }).fill('Training')
  await expect(page.getByText(/“Training” is a name for everything/)).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Ticket desk basics' }).click()
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Ticket desk basics')
  await expect(page.getByText(/is a name for everything/)).toBeHidden()
  await page.getByLabel('Name', { exact: true }).fill('Staff  Channel!')
  await page.getByRole('button', { name: /^Add/ }).click()
  await expect(page.getByText('The channel “Staff channel” has the short address staff-channel already. Enter another.')).toBeVisible()
})

test('a learner finds the moment at which something is said, and it plays from there', async ({ page }) => {
  await signIn(page, learner)
  await expect(async () => {
    await page.goto('/channel')
    await page.getByRole('link', { name: 'Opening the desk' }).waitFor({ timeout: 1000 })
  }).toPass({ timeout: 280_000 })
  const field = page.getByRole('searchbox', { name: 'Find in the lessons' })
  await field.fill('entering floats')
  await field.press('Enter')
  await expect(page.getByRole('heading', { level: 2, name: 'Opening the desk' })).toBeVisible()
  await expect(page.locator('mark').first()).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await field.fill('yelow shete')
  await page.getByRole('button', { name: 'Find', exact: true }).click()
  await expect(page.getByText(/This is what is said of “yellow sheet”/)).toBeVisible()
  await page.getByRole('link', { name: '0:17' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Opening the desk' })).toBeVisible()
  await expect.poll(() => page.evaluate(() => document.querySelector('video')?.currentTime ?? 0)).toBeGreaterThan(17)
  await expect.poll(() => page.evaluate(() => document.querySelector('video')?.paused)).toBe(false)
  await page.goto('/search?q=zeppelin')
  await expect(page.getByText(/No lesson that you may see says all of these words/)).toBeVisible()
  await page.setViewportSize({ width: 360, height: 740 })
  await page.goto('/search?q=sheet')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360)
})
