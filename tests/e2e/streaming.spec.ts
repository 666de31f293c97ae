import { readFile } from 'node:fs/promises'
import { expect, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, release, rendered, signIn } from './help'

test('an adaptive lesson is rendered in three sizes, plays piece by piece, and downloads as one ZIP', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  await rendered(page, clip('Tide.mp4', 13, '-vf', 'scale=1280:720', '-preset', 'ultrafast'), 'Tide', '0:00 First\n0:05 Second')
  await page.getByText(/\d+ more profiles/).click()
  const adaptive = page.getByRole('checkbox', { name: /Adaptive/ })
  await adaptive.check()
  await page.getByRole('checkbox', { name: /Web, as recorded/ }).uncheck()
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const check = page.getByRole('region', { name: 'File check' })
  await expect(check.getByRole('heading', { name: /Adaptive · everything is right/ })).toBeVisible({ timeout: 120_000 })
  await expect(check).toContainText('360 lines: picture size')
  await hasNoAccessibilityFaults(page)

  // What cannot take many files says so; what can is released.
  await expect(page.getByTestId('outlet-learningSystem')).toContainText('hundreds of small files')
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Download' }).first().click()])
  expect(download.suggestedFilename()).toBe('Tide - Adaptive.zip')
  const zip = (await readFile(await download.path())).toString('latin1')
  for (const name of ['stream/lesson.m3u8', 'stream/720/init.mp4', 'stream/360/0001.m4s']) expect(zip).toContain(name)

  const channel = page.getByTestId('outlet-channel')
  await channel.getByLabel('Profile for Staff channel').selectOption({ label: 'Adaptive' })
  await release(page, channel, 'Whoever has the address')
  const link = await channel.getByLabel('Link', { exact: true }).inputValue()
  const asked: string[] = []
  page.on('request', (request) => asked.push(new URL(request.url()).pathname))
  await page.goto(link)
  const video = page.locator('video')
  await video.evaluate((v: HTMLVideoElement) => v.play())
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(0.5)
  // The second section starts with a piece of its own.
  await page.getByRole('link', { name: /Second/ }).click()
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(5.2)
  expect(await video.evaluate((v: HTMLVideoElement) => [v.error, v.videoWidth > 0, Math.round(v.duration)])).toEqual([null, true, 13])
  // Picture and sound begin together: nothing of either is put off.
  expect(await video.evaluate((v: HTMLVideoElement) => v.buffered.start(0))).toBeLessThan(0.05)
  expect(asked.some((path) => path.endsWith('/stream/lesson.m3u8'))).toBe(true)
  expect(asked.some((path) => /\/stream\/sound\/0001\.m4s$/.test(path))).toBe(true)
  expect(asked.some((path) => path.endsWith('.mp4') && !path.endsWith('init.mp4'))).toBe(false)
})
