import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { hasNoAccessibilityFaults, signIn } from './help'

const recordings = join(import.meta.dirname, '..', '..', 'demo', 'recordings')

test('contents are proposed unasked, retitled, taken and left; they go out as files and come in again; a script makes captions', async ({ page }) => {
  test.setTimeout(400_000)
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(join(recordings, 'when we are late.mkv'))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  const lesson = page.url().split('/').at(-2) ?? ''
  await page.goto(`/lessons/${lesson}/mark-up`)

  // What the recorder wrote down of its pages is proposed, where they change.
  const box = (title: string) => page.locator('[data-proposal]').filter({ has: page.locator(`input[value="${title}"]`) })
  await expect(box('Change or refund')).toBeVisible({ timeout: 180_000 })
  await expect(box('Crossing')).toContainText('the page changed, largest text on the screen')
  await expect(page.getByText(/waiting for the screen/)).toBeHidden({ timeout: 120_000 })
  await hasNoAccessibilityFaults(page)

  await page.getByLabel('Title of the section that is proposed at 0:00').fill('Looking at the list')
  await page.getByRole('button', { name: 'Take the section at 0:00' }).click()
  await expect(page.getByLabel('Title of section 1')).toHaveValue('Looking at the list')
  await box('Crossing')
    .getByRole('button', { name: /^Leave/ })
    .click()
  await expect(box('Crossing')).toBeHidden()
  await expect(page.getByText('1 proposal left.')).toBeVisible()
  await page.getByRole('button', { name: 'Offer them again' }).click()
  await expect(box('Crossing')).toBeVisible()
  await page.getByRole('button', { name: 'Take all' }).click()
  await expect(page.locator('[data-proposal]')).toHaveCount(0)
  const titles = page.getByLabel(/^Title of section/)
  const taken = await titles.evaluateAll((fields) => fields.map((f) => (f as HTMLInputElement).value))
  expect(taken).toContain('Change or refund')

  // Out as a file, and in again in its place. What is done is saved half a second after.
  await page.waitForTimeout(1000)
  await expect(page.getByText(/^Saved/)).toBeVisible({ timeout: 20_000 })
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Contents as WebVTT chapters' }).click()])
  const file = await download.path()
  expect(readFileSync(file, 'utf8')).toMatch(/^WEBVTT\n\n1\n00:00:00\.000 --> /)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(titles).toHaveCount(1)
  await page.getByRole('button', { name: 'Bring in contents' }).click()
  await page.getByLabel('Choose a file of contents').setInputFiles(file)
  await page.getByRole('button', { name: /^Replace the contents by/ }).click()
  await expect(titles).toHaveCount(taken.length)
  expect(await titles.evaluateAll((fields) => fields.map((f) => (f as HTMLInputElement).value))).toEqual(taken)

  // The voice is listened to with the script's words, and its captions stand in the sheet without anybody's doing.
  const said = readFileSync(join(recordings, 'late.en.vtt'), 'utf8')
  const script = said
    .split('\n\n')
    .slice(1)
    .map((block) => block.split('\n').slice(1).join(' '))
  await page.getByText('From a script').click()
  await page.getByLabel(/^Paste what was to be said/).fill(`# Late\n\n${script.join('\n\n')}\n\nNobody says this sentence in the whole of the lesson.`)
  await page.getByRole('button', { name: 'Lay it along the voice' }).click()
  await expect(page.getByText(/the voice is listened to with its words|% of the script is said/)).toBeVisible({ timeout: 30_000 })
  await expect(page.getByText(/% of the script is said/)).toBeVisible({ timeout: 180_000 })
  await expect(page.getByRole('button', { name: /Correct the caption at.*Twenty minutes/ })).toBeVisible()
  const difference = page.getByText('stands in the script and is not said')
  await difference.first().scrollIntoViewIfNeeded()
  await expect(difference).toHaveCount(1)
  await page.getByRole('button', { name: /^Seen: the script at/ }).click()
  await expect(difference).toHaveCount(0)
})
