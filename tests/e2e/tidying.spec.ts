import { expect, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, signIn } from './help'

test('a stretch is cut by dragging and by keyboard, playing passes over it, and undo brings it back', async ({ page }) => {
  test.setTimeout(180_000)
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(clip('raw talk.mp4', 24, '-g', '30'))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('link', { name: 'Tidy' }).click()
  const sheet = page.getByTestId('run-sheet')
  await expect(sheet.locator('img').first()).toBeVisible({ timeout: 60_000 })
  const header = page.locator('header')
  await expect(header).toContainText('0:24')

  // By keyboard alone: from the start to 0:03, typed to the frame.
  await page.keyboard.press('Shift+ArrowDown')
  const stretch = page.getByRole('region', { name: 'Selected stretch' })
  await stretch.getByLabel('To', { exact: true }).fill('0:03')
  await stretch.getByLabel('To', { exact: true }).press('Enter')
  await stretch.getByRole('button', { name: 'To: one frame later' }).press('Enter')
  await expect(stretch.getByLabel('To', { exact: true })).toHaveValue('0:03.033')
  await stretch.getByRole('button', { name: 'To: one frame earlier' }).press('Enter')
  await expect(stretch).toContainText('The lesson would be 0:21 long.')
  await stretch.getByRole('button', { name: 'Go to its start' }).focus()
  await page.keyboard.press('x')
  const cuts = page.getByRole('region', { name: 'Cuts' })
  await expect(cuts).toContainText('1 stretch, 3.0 s')
  await expect(sheet.getByText('Cut, 3.0 s')).toBeVisible()
  await expect(header).toContainText('0:21 of 0:24')
  await hasNoAccessibilityFaults(page)

  // Playing passes over it, without rendering anything.
  const at = () => page.locator('video').evaluate((v: HTMLVideoElement) => v.currentTime)
  expect(await at()).toBe(0)
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect.poll(at).toBeGreaterThan(2.9)
  await page.getByRole('button', { name: 'Pause', exact: true }).click()

  // From where it plays, a frame at least: nothing but whole milliseconds reaches the server.
  await page.locator('video').evaluate((v: HTMLVideoElement) => {
    v.currentTime = 10
  })
  await page.keyboard.press('Escape')
  await page.keyboard.press('[')
  await expect(stretch.getByLabel('From', { exact: true })).toHaveValue('0:10.000')
  await expect(stretch.getByLabel('To', { exact: true })).toHaveValue('0:10.033')
  await page.keyboard.press('x')
  await expect(cuts).toContainText('2 stretches')
  await expect(header).toContainText('Saved')
  await page.keyboard.press('Control+z')
  await expect(cuts).toContainText('1 stretch,')

  // By dragging down the sheet.
  const rows = sheet.locator('[data-block]:not([data-cut])')
  const box = await rows.last().boundingBox()
  if (!box) throw new Error('There is no row.')
  await page.mouse.move(box.x + 200, box.y + 8)
  await page.mouse.down()
  await page.mouse.move(box.x + 200, box.y + box.height / 2, { steps: 4 })
  await page.mouse.move(box.x + 200, box.y + box.height - 4, { steps: 4 })
  await page.mouse.up()
  await stretch.getByRole('button', { name: /^Cut / }).click()
  await expect(cuts).toContainText('2 stretches')
  await cuts.getByRole('button', { name: /^Restore the cut at 0:00/ }).click()
  await expect(cuts).toContainText('1 stretch')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(cuts).toContainText('2 stretches')
  await page.waitForLoadState('networkidle')
  await page.reload()
  await expect(cuts).toContainText('2 stretches')
})
