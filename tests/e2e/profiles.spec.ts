import { readFile } from 'node:fs/promises'
import { expect, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, release, rendered, signIn } from './help'

test('a profile is copied, checked as it is typed, mended with one click, and taken for an outlet', async ({ page }) => {
  test.setTimeout(180_000)
  await signIn(page)
  await page.getByRole('link', { name: 'Kit' }).click()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('link', { name: 'Web 720p' }).click()
  await expect(page.getByText('This profile comes with Wexel and stays as it is.')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Copy it to change it' }).click()
  await page.getByLabel('Name', { exact: true }).fill('For the wall')
  await expect(page.getByText(/^Saved/)).toBeVisible()
  const beside = page.getByRole('complementary', { name: 'What it comes to' })
  await expect(beside).toContainText('Nothing speaks against it.')

  // A level that does not hold the picture is said while it is typed, at the field and beside, with the one that does.
  await page.getByLabel('H.264 level').fill('2')
  await expect(beside).toContainText('Level 2 does not hold 1280 × 720 at 30 frames a second')
  await expect(page.getByText('Not saved.')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  // What could not be saved is still there after leaving.
  await page.reload()
  await expect(page.getByLabel('H.264 level')).toHaveValue('2')
  await beside.getByRole('button', { name: 'Take level 3.1' }).click()
  await expect(page.getByLabel('H.264 level')).toHaveValue('3.1')
  await expect(page.getByText(/^Saved/)).toBeVisible()

  // A container that cannot hold the codecs, undone.
  await page.getByLabel('Container').selectOption('webm')
  await expect(beside).toContainText('WebM cannot hold AAC.')
  await expect(beside).toContainText('Harbour School does not take it.')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(beside).toContainText('Nothing speaks against it.')

  // Out as a document and in again.
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Export' }).click()])
  expect(download.suggestedFilename()).toBe('web-720p-2.profile.json')
  const text = await readFile(await download.path(), 'utf8')
  await page.getByRole('link', { name: 'Kit' }).first().click()
  await page
    .getByLabel('Profile file')
    .setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from(text.replace('"h264"', '"tape"')) })
  await expect(page.getByText(/at “picture\.codec” cannot be read/)).toBeVisible()
  await page
    .getByLabel('Profile file')
    .setInputFiles({ name: 'a.json', mimeType: 'application/json', buffer: Buffer.from(text.replace('For the wall', 'For the bus')) })
  await expect(page.getByRole('heading', { name: 'For the bus' })).toBeVisible()

  await page.getByRole('link', { name: 'Kit' }).first().click()
  await page.getByLabel('Profile for Staff channel').selectOption({ label: 'For the wall' })
  await expect(page.getByText('Taken for Staff channel.')).toBeVisible()
  await page.getByLabel('Profile for Staff channel').selectOption({ label: 'Web, as recorded' })

  await page.getByRole('link', { name: 'For the bus' }).click()
  await page.getByRole('button', { name: 'Remove' }).click()
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(page.getByRole('link', { name: 'For the bus' })).toBeVisible()
})

test('several files are rendered in one go, and open formats play for a learner', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  await rendered(page, clip('Mooring.mp4', 11), 'Mooring', '0:00 First\n0:03 Second')
  await page.getByText(/\d+ more profiles/).click()
  await page.getByRole('checkbox', { name: /Open formats/ }).check()
  await page.getByRole('checkbox', { name: /Podcast, sound only/ }).check()
  await page.getByRole('checkbox', { name: /Web, as recorded/ }).uncheck()
  await page.getByRole('button', { name: 'Render 2 files' }).click()
  await expect(page.getByRole('link', { name: 'Download' })).toHaveCount(3, { timeout: 120_000 })
  const school = page.getByTestId('outlet-learningSystem')
  await expect(school).toContainText('“Open formats” makes WebM with AV1 and Opus')
  const channel = page.getByTestId('outlet-channel')
  await channel.getByLabel('Profile for Staff channel').selectOption({ label: 'Open formats' })
  await release(page, channel, 'Whoever has the address')
  const link = await channel.getByLabel('Link', { exact: true }).inputValue()
  await page.goto(link)
  const video = page.locator('video')
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.videoWidth)).toBe(640)
  expect(await video.evaluate((v: HTMLVideoElement) => v.currentSrc)).toContain('.webm')
  await video.evaluate((v: HTMLVideoElement) => v.play())
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(0.5)
})
