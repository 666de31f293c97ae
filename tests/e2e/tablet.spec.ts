import { expect, type Page, test } from '@playwright/test'
import { hasNoAccessibilityFaults, rawTalk, signIn } from './help'

test.use({ viewport: { width: 768, height: 1024 }, hasTouch: true })

/** A finger that comes down, rests as long as is said, goes on, and is lifted; as a browser is told of it. */
async function finger(page: Page, from: { x: number; y: number }, to: { x: number; y: number }, rests: number) {
  const client = await page.context().newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', at?: { x: number; y: number }) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: at ? [at] : [] })
  await touch('touchStart', from)
  await page.waitForTimeout(rests)
  for (let step = 1; step <= 8; step++) {
    await touch('touchMove', { x: from.x + ((to.x - from.x) * step) / 8, y: from.y + ((to.y - from.y) * step) / 8 })
    await page.waitForTimeout(30)
  }
  await touch('touchEnd')
  await client.detach()
}

test('on a tablet a finger that rests selects, its edges are dragged, and one that does not rest scrolls', async ({ page }) => {
  test.setTimeout(120_000)
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(rawTalk('Talk on a tablet.mp4', 380))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByLabel('Title', { exact: true }).fill('Talk on a tablet')
  await page.getByRole('link', { name: /^Tidy/ }).click()
  const sheet = page.getByTestId('run-sheet')
  // What is suggested comes in above what stands there, and moves it.
  await expect(sheet.getByText('Cut 2.6 s before the first word')).toBeVisible({ timeout: 60_000 })
  await page.getByLabel('Look').selectOption({ label: 'By the second' })
  const box = await sheet.boundingBox()
  if (!box) throw new Error('There is no sheet.')
  const x = box.x + 60
  const panel = page.getByRole('region', { name: 'Selected stretch' })

  // Without a rest the sheet is scrolled, and nothing is selected.
  await finger(page, { x, y: box.y + 360 }, { x, y: box.y + 120 }, 0)
  await expect.poll(() => sheet.evaluate((s) => s.scrollTop)).toBeGreaterThan(50)
  await expect(panel.getByText('Drag down the sheet')).toBeVisible()

  const before = await sheet.evaluate((s) => s.scrollTop)
  await finger(page, { x, y: box.y + 150 }, { x, y: box.y + 260 }, 600)
  await expect(panel.getByRole('button', { name: /^Cut / })).toBeVisible()
  expect(await sheet.evaluate((s) => s.scrollTop)).toBe(before)
  const until = await panel.getByLabel('To', { exact: true }).inputValue()

  const handle = await page.getByTestId('stretch-end').boundingBox()
  if (!handle) throw new Error('There is no handle.')
  // WCAG 2.2, success criterion 2.5.5: a target for fingers is 44 CSS pixels high and wide at least.
  expect(handle.height).toBeGreaterThanOrEqual(44)
  expect(handle.width).toBeGreaterThanOrEqual(44)
  const middle = { x: handle.x + handle.width / 2, y: handle.y + handle.height / 2 }
  await finger(page, middle, { x: middle.x, y: middle.y + 90 }, 0)
  await expect(panel.getByLabel('To', { exact: true })).not.toHaveValue(until)
  await hasNoAccessibilityFaults(page)

  // Nothing lies beside the page, however it is held.
  for (const width of [768, 1024]) {
    await page.setViewportSize({ width, height: 1792 - width })
    for (const stage of ['Bring in', 'Tidy', 'Mark up', 'Deliver']) {
      await page
        .getByRole('navigation', { name: 'Stages' })
        .getByRole('link', { name: new RegExp(`^${stage}`) })
        .click()
      await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth - innerWidth), `${stage} at ${width}`).toBeLessThanOrEqual(0)
    }
  }
  for (const place of ['Lessons', 'Board', 'Queue', 'Results', 'Kit']) {
    await page
      .getByRole('navigation', { name: 'Places' })
      .getByRole('link', { name: new RegExp(`^${place}`) })
      .click()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth - innerWidth), place).toBeLessThanOrEqual(0)
  }
})
