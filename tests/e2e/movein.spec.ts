import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { folder, hasNoAccessibilityFaults, openFiles, signIn } from './help'

const font = '/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf'

/** A desk page in full HD: a heading all through, small print that comes at 4 s and goes at 12 s, and a tone. */
function smallPrint(name: string): string {
  const path = join(folder, name)
  const text = (size: number, x: number, y: number, words: string, when = '') =>
    `drawtext=fontfile=${font}:fontsize=${size}:text='${words}':x=${x}:y=${y}:fontcolor=black${when}`
  const small = [0, 1, 2].map((i) => text(19, 1100, 620 + i * 34, `Row ${i + 1} of the fares that hold this season`, ":enable='between(t,4,12)'"))
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'color=c=white:s=1920x1080:r=10:d=16'],
    ...['-f', 'lavfi', '-i', 'sine=f=330:d=16', '-vf', [text(60, 80, 60, 'Fares and seasons'), ...small].join(','), '-pix_fmt', 'yuv420p', '-shortest', path],
  ])
  return path
}

test('what is hard to read is shown, a proposed move-in is taken with one click, seen at once, and rendered', async ({ page }) => {
  test.setTimeout(150_000)
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(smallPrint('Fares in small print.mp4'))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('link', { name: /^Tidy/ }).click()
  const hard = page.getByRole('region', { name: 'Hard to read' })
  await hard.getByLabel('delivered in').selectOption('small-480p')
  await expect(hard).toContainText('· 1 stretch', { timeout: 60_000 })
  await expect(hard).toContainText(/smallest text 4\.\d px · 3 lines/)
  await expect(page.getByTestId('run-sheet').locator('[data-hard]')).toContainText(/smallest text 4\.\d px at 480p/)

  // On the picture it is shown where it is, and only while it is there.
  await expect(page.getByTestId('detail-overlay')).toHaveCount(0)
  await hard.getByRole('button', { name: '0:04', exact: true }).click()
  await expect(page.getByTestId('detail-overlay').locator('.border')).toHaveCount(3)

  await hard.getByRole('button', { name: /^Move in ×/ }).click()
  await expect(hard).toContainText('· nothing')
  const note = page.getByTestId('run-sheet').locator('[data-move-in]')
  await expect(note).toContainText(/Moves in ×2\.\d until 0:12/)

  // Drawn at once: the rows stand large in the picture, which stays within its frame.
  await note.getByRole('button', { name: 'Change it' }).click()
  const video = page.locator('video')
  const frame = page.getByTestId('page').locator('..')
  const boxes = async () => {
    const [v, f] = [await video.boundingBox(), await frame.boundingBox()]
    if (!v || !f) throw new Error('There is no picture.')
    return { v, f, larger: v.width / f.width }
  }
  await expect.poll(async () => (await boxes()).larger).toBeGreaterThan(2)
  const { v, f } = await boxes()
  const [left, right] = [v.x + (1100 / 1920) * v.width, v.x + (1500 / 1920) * v.width]
  expect(left).toBeGreaterThan(f.x)
  expect(right).toBeLessThan(f.x + f.width)
  expect(v.x).toBeLessThanOrEqual(f.x + 1)
  expect(v.x + v.width).toBeGreaterThanOrEqual(f.x + f.width - 1)

  // By numbers, and by the corner's keys; what is set stays after the page was left.
  const panel = page.getByRole('region', { name: 'Move-ins' })
  await panel.getByLabel('Left, px').fill('1000')
  await panel.getByLabel('Left, px').press('Enter')
  await panel.getByRole('button', { name: 'Move the part' }).press('ArrowRight')
  await expect(panel.getByLabel('Left, px')).toHaveValue('1001')
  await hasNoAccessibilityFaults(page)
  await expect(page.getByText(/revision \d+: 1 move-in changed/)).toBeVisible()
  await page.reload()
  await expect(page.getByTestId('run-sheet').locator('[data-move-in]')).toBeVisible()

  // By hand: the selected stretch, with the key. It lies over the other one, and ends where that begins.
  await page.getByRole('button', { name: 'Go to 0:00' }).first().click()
  await page.keyboard.press('[')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press(']')
  await page.keyboard.press('m')
  await expect(panel).toContainText('· 2 stretches')
  await expect(panel.getByRole('button', { name: '0:00 – 0:04' })).toBeVisible()
  await panel.getByRole('button', { name: 'Remove the move-in at 0:00' }).click()
  await expect(panel).toContainText('· 1 stretch')
  await page.keyboard.press('Control+z')
  await expect(panel).toContainText('· 2 stretches')

  await page.getByRole('link', { name: 'Deliver' }).click()
  await openFiles(page)
  await page.getByRole('checkbox', { name: /Web, as recorded/ }).uncheck({ timeout: 60_000 })
  await expect(page.getByText('Choose at least one profile.')).toBeVisible()
  await page.getByText(/\d+ more profiles/).click()
  await page.getByRole('checkbox', { name: /Small 480p/ }).check()
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await expect(page.getByRole('heading', { name: /File check .* everything is right/ })).toBeVisible({ timeout: 120_000 })
})
