import { createHash } from 'node:crypto'
import { readFileSync, renameSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { clip, signIn } from './help'
import { data, ports } from './playwright.config'

/** Brings a recording in and waits until it can be rendered; gives the lesson's number and its recording's hash, under which it is kept. */
async function broughtIn(page: Page, name: string, seconds: number) {
  const recording = clip(`${name}.mp4`, seconds)
  await page.goto('/')
  await page.getByLabel('Choose recordings').setInputFiles(recording)
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  const id = page.url().split('/').at(-2) as string
  await expect
    .poll(async () => (await (await page.request.get(`/api/lessons/${id}/deliver`)).json()).notReady, { timeout: 60_000, intervals: [500] })
    .toBeNull()
  return { id, hash: createHash('sha256').update(readFileSync(recording)).digest('hex') }
}

test('a batch is left alone and finishes with a failure in it: one mail tells of both, and trying again mends it', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  const [good, bad] = [await broughtIn(page, 'Safety drill', 15), await broughtIn(page, 'Cargo list', 16)]
  // Somebody moved a file away on the server.
  const file = join(data, 'files', 'recordings', bad.hash)
  renameSync(file, `${file}.away`)

  await page.goto('/')
  for (const title of ['Safety drill', 'Cargo list']) await page.getByRole('checkbox', { name: `Select ${title}` }).check()
  await page.getByRole('button', { name: 'Render 2 lessons' }).click()
  await page.getByRole('checkbox', { name: /^Web, as recorded/ }).uncheck()
  await page.getByRole('checkbox', { name: /^Master copy/ }).check()
  await page.getByRole('button', { name: 'Render 2 files' }).click()
  await expect(page.getByText('2 files in the queue; one mail comes when all are done.')).toBeVisible()
  // The page is closed, and nobody looks.
  await page.goto('about:blank')
  const mails = async (): Promise<{ subject: string; text: string }[]> => (await page.request.get(`http://127.0.0.1:${ports.outside}/mail.json`)).json()
  const told = async () => (await mails()).filter((m) => m.text.includes('Cargo list'))
  await expect.poll(async () => (await told()).length, { timeout: 120_000, intervals: [500] }).toBe(1)
  const [mail] = await told()
  expect(mail?.subject).toBe('1 of 2 files are ready, 1 failed')
  expect(mail?.text).toContain('“Safety drill” is rendered (Master copy), 0:15 long')
  expect(mail?.text).toContain('“Cargo list” could not be rendered (Master copy).\nThe recording is no longer in the store. Bring it in again.')
  expect(mail?.text).toContain(`/lessons/${good.id}/deliver`)

  await page.goto('/queue')
  const line = page.getByRole('row').filter({ hasText: 'Cargo list' }).filter({ hasText: 'Master copy' })
  await expect(line).toContainText('Failed. The recording is no longer in the store.')
  await expect(page.getByRole('row').filter({ hasText: 'Safety drill' }).filter({ hasText: 'Master copy' })).toContainText('Ready')
  renameSync(`${file}.away`, file)
  await line.getByRole('button', { name: 'Try again' }).click()
  await expect(line).toContainText('Ready', { timeout: 120_000 })
})
