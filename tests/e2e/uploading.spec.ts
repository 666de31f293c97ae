import { appendFileSync } from 'node:fs'
import { expect, type Page, type Route, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, signIn } from './help'

/** A recording of some pieces of 16 MB, though short: most of it is a box that holds nothing (ISO/IEC 14496-12, section 8.1.2). */
function large(name: string, frames: number): string {
  const path = clip(name, 2, '-g', `${frames}`)
  const nothing = Buffer.alloc(40 * 1024 * 1024)
  nothing.writeUInt32BE(nothing.length)
  nothing.write('free', 4)
  appendFileSync(path, nothing)
  return path
}

/** The pieces that were sent, by where they started; each waits until it is let through. */
async function watchPieces(page: Page, decide: (offset: number) => 'pass' | 'hold' | 'lose') {
  const starts: number[] = []
  const held: Route[] = []
  await page.route('**/api/uploads/*', async (route) => {
    const request = route.request()
    if (request.method() !== 'PATCH') return route.continue()
    const offset = Number(request.headers()['upload-offset'])
    starts.push(offset)
    const decision = decide(offset)
    if (decision === 'lose') return route.abort('connectionfailed')
    if (decision === 'hold') return void held.push(route)
    return route.continue()
  })
  return { starts, held }
}

const piece = 16 * 1024 * 1024

test('an upload is paused, goes on after a reload exactly where it stopped, and keeps the title typed meanwhile', async ({ page }) => {
  test.setTimeout(180_000)
  const file = large('long take.mp4', 11)
  await signIn(page)
  let holding = true
  const { starts, held } = await watchPieces(page, (offset) => (offset >= piece && holding ? 'hold' : 'pass'))
  await page.getByLabel('Choose recordings').setInputFiles(file)
  const panel = page.getByRole('region', { name: 'Bringing in' })
  await expect.poll(() => held.length).toBe(1)
  await expect(panel.getByRole('progressbar')).toHaveAttribute('aria-valuenow', /^[1-9]\d?$/)
  await panel.getByLabel('Title').fill('Mooring in the wind')
  await panel.getByLabel('Title').press('Tab')
  await hasNoAccessibilityFaults(page)
  await panel.getByRole('button', { name: 'Pause' }).click()
  await expect(panel).toContainText('Paused')
  await page.waitForTimeout(300)
  await page.reload()
  await expect(panel).toContainText('Begun before.')
  await expect(panel.getByLabel('Title')).toHaveValue('Mooring in the wind')

  holding = false
  starts.length = 0
  await page.getByLabel('Choose recordings').setInputFiles(file)
  await page.waitForURL(/\/lessons\/.*\/bring-in/, { timeout: 60_000 })
  expect(starts[0]).toBe(piece)
  expect(starts).toEqual(starts.map((_, i) => piece * (i + 1)))
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Mooring in the wind')
  await panel.getByRole('button', { name: 'Close' }).click()
})

test('a lost connection is noticed, and the upload goes on by itself', async ({ page }) => {
  test.setTimeout(180_000)
  const file = large('windy take.mp4', 12)
  await signIn(page)
  let gone = true
  const { starts } = await watchPieces(page, (offset) => (offset >= piece && gone ? 'lose' : 'pass'))
  await page.getByLabel('Choose recordings').setInputFiles(file)
  const panel = page.getByRole('region', { name: 'Bringing in' })
  await expect(panel).toContainText('The server cannot be reached.', { timeout: 60_000 })
  gone = false
  starts.length = 0
  await page.waitForURL(/\/lessons\/.*\/bring-in/, { timeout: 60_000 })
  expect(starts[0]).toBe(piece)
  await panel.getByRole('button', { name: 'Close' }).click()
})

test('several come at once, one is stopped, and one that is no video gets a sentence', async ({ page }) => {
  test.setTimeout(120_000)
  await signIn(page)
  let holding = true
  const { held } = await watchPieces(page, (offset) => (offset >= piece && holding ? 'hold' : 'pass'))
  const text = { name: 'notes.mp4', mimeType: 'video/mp4', buffer: Buffer.from('just text') }
  await page.getByLabel('Choose recordings').setInputFiles([large('third take.mp4', 13), clip('short one.mp4', 2, '-g', '17')])
  const panel = page.getByRole('region', { name: 'Bringing in' })
  const row = (name: string) => panel.getByRole('listitem').filter({ hasText: name })
  await expect.poll(() => held.length).toBe(1)
  await expect(row('short one.mp4')).toContainText('Brought in', { timeout: 30_000 })
  await page.getByLabel('Choose recordings').setInputFiles(text)
  await expect(row('notes.mp4').getByRole('alert')).toContainText('“notes.mp4” is not a video file')
  await row('third take.mp4').getByRole('button', { name: 'Stop' }).click()
  await expect(row('third take.mp4')).toContainText('Stopped; nothing was kept.')
  holding = false
  await expect.poll(async () => (await (await page.request.get('/api/uploads')).json()).length).toBe(0)
  await row('short one.mp4').getByRole('link', { name: 'Open the lesson' }).click()
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
})
