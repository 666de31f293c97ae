import { expect, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, release, signIn } from './help'

test.describe.configure({ timeout: 240_000 })

test('which file learners download is chosen where the lesson is released, and comes under the lesson’s name', async ({ page }) => {
  await signIn(page)
  await page.goto('/')
  await page.getByLabel('Choose recordings').setInputFiles(clip('To keep.mp4', 6))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByLabel('Title', { exact: true }).fill('Splices: short & long')
  await page.getByRole('link', { name: 'Deliver' }).click()
  const place = page.getByTestId('outlet-channel')
  await place.getByRole('checkbox').first().check({ timeout: 90_000 })
  await place.getByText('Say something else there alone').click()
  // Which file is asked only where there is one to download.
  await expect(place.getByTestId('detail-downloadAs')).toHaveCount(0)
  await place.getByRole('button', { name: /learners may download it here$/ }).click()
  await place.getByTestId('detail-mayDownload').getByText('yes', { exact: true }).click()
  await place.getByRole('button', { name: /which file they download here$/ }).click()
  await place.getByLabel('Which file they download').selectOption({ label: 'Small 480p' })
  await expect(page.getByText(/^2 files are rendered;/)).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await release(page, place, 'The organisation')

  await page.goto(await place.getByLabel('Link').inputValue())
  const link = page.getByRole('link', { name: /^Download the video \(MP4, \d+ × \d+, [\d.]+ [kM]B\)$/ })
  const coming = page.waitForEvent('download')
  await link.click()
  expect((await coming).suggestedFilename()).toMatch(/^Splices.? short & long\.mp4$/)
})
