import { extract } from '@extractus/oembed-extractor'
import { expect, type Page, test } from '@playwright/test'
import { hasNoAccessibilityFaults, newcomer, signIn } from './help'
import { ports } from './playwright.config'

// The server renders and releases its first demo lesson by itself; a busy machine takes a while.
test.describe.configure({ timeout: 300_000 })

const at = (page: Page) => page.evaluate(() => document.querySelector('video')?.currentTime ?? -1)

async function openDemoLesson(page: Page, hash = '') {
  await signIn(page, newcomer)
  await expect(async () => {
    await page.goto('/channel')
    await page.getByRole('link', { name: 'Opening the desk' }).waitFor({ timeout: 1000 })
  }).toPass({ timeout: 280_000 })
  await hasNoAccessibilityFaults(page)
  const address = await page.getByRole('link', { name: 'Opening the desk' }).getAttribute('href')
  await page.goto(`${address}${hash}`)
  await expect(page.getByRole('heading', { level: 1, name: 'Opening the desk' })).toBeVisible()
}

test('the demo lesson plays by keyboard, shows captions, and resumes where it was left', async ({ page }) => {
  await openDemoLesson(page, '#t=0:12.5')
  await expect.poll(() => at(page)).toBeCloseTo(12.5, 1)
  await expect(page.getByRole('link', { name: /Signing in/ })).toHaveAttribute('aria-current', 'true')
  await page.keyboard.press('ArrowRight')
  await expect.poll(() => at(page)).toBeCloseTo(17.5, 1)
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Space')
  await expect.poll(() => at(page)).toBeGreaterThan(14)
  await page.keyboard.press('Space')
  await expect.poll(() => page.evaluate(() => document.querySelector('video')?.paused)).toBe(true)
  const captions = () => page.evaluate(() => [...(document.querySelector('video')?.textTracks ?? [])].find((t) => t.kind === 'captions')?.mode)
  expect(await captions()).toBe('showing')
  await page.keyboard.press('c')
  await expect.poll(captions).not.toBe('showing')
  await page.keyboard.press('c')
  await expect.poll(captions).toBe('showing')
  // Letters alone can be switched off (WCAG 2.2, 2.1.4).
  await page.keyboard.press('?')
  const letters = page.getByLabel(/Single letters work too/)
  await letters.uncheck()
  await page.getByRole('button', { name: 'Close' }).click()
  await page.keyboard.press('c')
  await page.keyboard.press('ArrowRight')
  expect(await captions()).toBe('showing')
  await page.getByText('More', { exact: true }).click()
  await page.getByRole('button', { name: 'Keys' }).click()
  await letters.check()
  // And changed: another key does it then, and the first does not.
  await page.getByLabel('Key for: Captions, or none').fill('x')
  await page.getByLabel('Key for: Back 10 s').fill('x')
  await expect(page.getByText('“x” is the key for: Captions, or none. Choose another.')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.keyboard.press('Escape')
  await expect(page.getByLabel('Key for: Back 10 s')).toBeHidden()
  await page.keyboard.press('c')
  expect(await captions()).toBe('showing')
  await page.keyboard.press('x')
  await expect.poll(captions).not.toBe('showing')
  await page.keyboard.press('x')
  // A title in another writing runs its own way.
  await expect(page.getByRole('heading', { level: 1 })).toHaveAttribute('dir', 'auto')
  await page.getByLabel('Speed').selectOption('1.25')
  await expect.poll(() => page.evaluate(() => document.querySelector('video')?.playbackRate)).toBe(1.25)
  // On a button or in a list of choices the space bar is theirs; off them, it plays and pauses.
  await page.getByRole('heading', { level: 1 }).click()
  const before = await at(page)
  await page.keyboard.press('Space')
  await expect.poll(() => at(page)).toBeGreaterThan(before + 1)
  const told = page.waitForResponse((answer) => answer.url().includes('/progress') && answer.request().method() === 'POST')
  await page.keyboard.press('Space')
  await expect.poll(() => page.evaluate(() => document.querySelector('video')?.paused)).toBe(true)
  await expect(page.getByText(/You have seen [1-9]\d* %/)).toBeVisible()
  const left = await at(page)
  await told
  // The second time at once: a page that was left before it had played anything must not move the place.
  await page.goto(page.url().split('#')[0])
  await page.reload()
  await expect(page.getByText(/You left off at 0:[1-4]/)).toBeVisible()
  await expect.poll(() => at(page)).toBeCloseTo(left, 0)
  await page.getByRole('button', { name: 'Start from the beginning' }).click()
  await expect.poll(() => at(page)).toBe(0)
})

test('the watch page works at 360 pixels and without faults for assistive technology', async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 })
  await openDemoLesson(page)
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360)
  await hasNoAccessibilityFaults(page)
  await page.emulateMedia({ colorScheme: 'dark' })
  await hasNoAccessibilityFaults(page)
})

test('a pasted link becomes a preview, and a pasted embed code survives the cleaning', async ({ page, browser }) => {
  await openDemoLesson(page)
  const link = page.url()
  const outside = await (await browser.newContext({ baseURL: `http://127.0.0.1:${ports.outside}` })).newPage()
  await outside.goto('/discussion')
  await outside.getByLabel('Say something, with a link').fill(`Look at this: ${link}`)
  await outside.getByRole('button', { name: 'Post' }).click()
  await expect(outside.getByRole('link', { name: 'Opening the desk' })).toHaveAttribute('href', link)
  await expect(outside.frameLocator('iframe').getByText('▶ Play')).toBeVisible()
  await hasNoAccessibilityFaults(outside)

  const answer = (await (await outside.request.get(`http://127.0.0.1:${ports.server}/oembed?url=${encodeURIComponent(link)}&maxwidth=500`)).json()) as {
    html: string
  }
  await outside.goto('/page-editor')
  await outside.getByLabel('HTML of the page').fill(`<h3>Read first</h3>${answer.html}<script>document.title = 'taken over'</script>`)
  await outside.getByRole('button', { name: 'Show' }).click()
  await expect(outside.frameLocator('iframe').getByText('▶ Play')).toBeVisible()
  expect(await outside.title()).toBe('Page editor')
  await hasNoAccessibilityFaults(outside)

  // An oEmbed reader from the registry finds the same by discovery.
  const found = await extract(link, { maxwidth: 640 })
  expect(found).toMatchObject({ type: 'video', version: '1.0', title: 'Opening the desk', width: 640, height: 360 })
})
