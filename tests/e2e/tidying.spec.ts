import { expect, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, rawTalk, signIn } from './help'

test('a stretch is cut by dragging and by keyboard, playing passes over it, and undo brings it back', async ({ page }) => {
  test.setTimeout(180_000)
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(clip('raw talk.mp4', 24, '-g', '30'))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('link', { name: /^Tidy/ }).click()
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
  const cuts = page.getByRole('region', { name: 'Cuts', exact: true })
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

test('a raw recording is tidied from start to finish by keyboard alone', async ({ page }) => {
  test.setTimeout(180_000)
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(rawTalk('raw take.mp4'))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).press('Enter')
  await page.getByRole('link', { name: /^Tidy/ }).press('Enter')
  const suggested = page.getByRole('region', { name: 'Suggested cuts' })
  await expect(suggested.getByRole('listitem')).toHaveCount(4, { timeout: 60_000 })
  await expect(page.getByRole('link', { name: 'Tidy 4 suggestions' })).toBeVisible()
  const sheet = page.getByTestId('run-sheet')
  await expect(sheet.getByText(/in which nothing changes and nobody speaks/)).toBeVisible()
  await hasNoAccessibilityFaults(page)

  // The first is heard cut, as it would be: playing starts where the cut ends.
  const at = () => page.locator('video').evaluate((v: HTMLVideoElement) => v.currentTime)
  await page.keyboard.press('h')
  await expect.poll(at).toBeGreaterThan(2.6)
  await page.keyboard.press(' ')
  await page.locator('video').evaluate((v: HTMLVideoElement) => {
    v.currentTime = 0
  })

  // Row by row, closer and back again.
  await page.keyboard.press('ArrowDown')
  expect(await at()).toBeGreaterThan(0)
  await page.keyboard.press('ArrowUp')
  expect(await at()).toBe(0)
  await page.keyboard.press('+')
  await page.keyboard.press('+')
  await expect(page.getByLabel('Look')).toHaveValue('frames')
  await expect(sheet.getByRole('button', { name: 'Go to 0:00' }).nth(1)).toHaveText('0:00.033')
  await expect
    .poll(
      () =>
        sheet
          .locator('img')
          .nth(1)
          .evaluate((i: HTMLImageElement) => i.naturalWidth),
      { timeout: 30_000 },
    )
    .toBe(320)
  await page.keyboard.press('-')
  await page.keyboard.press('-')
  await expect(page.getByLabel('Look')).toHaveValue('pictures')

  // One is left, one taken, the rest taken at once, and that is one step back.
  const cuts = page.getByRole('region', { name: 'Cuts', exact: true })
  await page.keyboard.press('t')
  await expect(cuts).toContainText('1 stretch')
  await page.keyboard.press('l')
  await expect(suggested).toContainText('1 suggestion left.')
  await expect(suggested.getByRole('listitem')).toHaveCount(2)
  await suggested.getByRole('button', { name: /^Take all/ }).press('Enter')
  await expect(cuts).toContainText('3 stretches')
  await page.keyboard.press('Control+z')
  await expect(cuts).toContainText('1 stretch,')
  await page.keyboard.press('Control+Shift+z')
  await expect(cuts).toContainText('3 stretches')

  // The one that was left is cut by hand: its edges go from word to word.
  await page.keyboard.press('[')
  const stretch = page.getByRole('region', { name: 'Selected stretch' })
  await stretch.getByRole('button', { name: 'To: to the next word' }).press('Enter')
  await stretch.getByRole('button', { name: 'From: to the next word' }).press('Enter')
  await expect(stretch.getByLabel('From', { exact: true })).toHaveValue(/^0:0(2\.9|3\.0)/)
  await stretch.getByRole('button', { name: 'To: to the next word' }).press('Enter')
  await expect(stretch.getByLabel('To', { exact: true })).toHaveValue(/0:05\.0/)
  await expect(stretch).toContainText('The lesson would be')
  await stretch.getByRole('button', { name: 'Select nothing' }).press('Enter')
  await page.waitForLoadState('networkidle')
  await page.reload()
  await expect(cuts).toContainText('3 stretches')
  await expect(suggested).toContainText('1 suggestion left.')
  await suggested.getByRole('button', { name: 'Offer them again' }).press('Enter')
  await expect(suggested.getByRole('listitem')).toHaveCount(1)
})

test('what counts as silence is chosen, and a number out of range gets a sentence', async ({ page }) => {
  test.setTimeout(120_000)
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(rawTalk('raw second take.mp4', 350))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('link', { name: /^Tidy/ }).click()
  const suggested = page.getByRole('region', { name: 'Suggested cuts' })
  await expect(suggested.getByRole('listitem')).toHaveCount(4, { timeout: 60_000 })
  await suggested.getByText('What counts as silence').click()
  await suggested.getByLabel('Pauses longer than, s').fill('100')
  await suggested.getByLabel('Pauses longer than, s').press('Enter')
  await expect(suggested).toContainText('Between 0.5 and 60.')
  await suggested.getByLabel('Pauses longer than, s').fill('4')
  await suggested.getByLabel('Pauses longer than, s').press('Enter')
  await expect(suggested.getByRole('listitem')).toHaveCount(3)
  await suggested.getByRole('listitem').getByRole('button', { name: '0:00' }).click()
  // In the sheet: taken with one click, right where it would be.
  await page.getByTestId('run-sheet').getByRole('button', { name: 'Take', exact: true }).first().click()
  await expect(page.getByRole('region', { name: 'Cuts', exact: true })).toContainText('1 stretch')
  await page.getByRole('button', { name: 'Open the cut at 0:00' }).click()
  await page.getByRole('button', { name: 'Fold again' }).click()
  await expect(page.getByRole('button', { name: 'Open the cut at 0:00' })).toBeVisible()
})
