import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { folder, hasNoAccessibilityFaults, openFiles, signIn } from './help'

/** A page of one colour with a tone, in a size and at a rate of its own. */
function page(name: string, colour: string, size: string, rate: number, seconds: number, tone: number): string {
  const path = join(folder, name)
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `color=c=${colour}:s=${size}:r=${rate}:d=${seconds}`, '-f', 'lavfi', '-i', `sine=f=${tone}:d=${seconds}`],
    ...['-pix_fmt', 'yuv420p', '-g', String(rate), '-shortest', path],
  ])
  return path
}

test('several recordings make one lesson: added, dragged, replaced by a new take, played over the joints and rendered', async ({ page: desk }) => {
  test.setTimeout(200_000)
  await signIn(desk)
  await desk.getByLabel('Choose recordings', { exact: true }).setInputFiles(page('Casting off.mp4', 'navy', '640x360', 30, 6, 330))
  await desk.waitForURL(/\/lessons\/.*\/bring-in/)
  await desk.getByRole('button', { name: 'Close' }).click()
  const recordings = desk.getByRole('region', { name: 'Recordings' })
  await expect(recordings).toContainText('· one')
  await desk.getByLabel('Choose recordings for this lesson').setInputFiles(page('Mooring.mp4', 'olive', '320x240', 25, 4, 440))
  await expect(recordings).toContainText('· 2, one after the other', { timeout: 60_000 })
  await desk.getByRole('button', { name: 'Close' }).click()
  await expect(desk.getByText('0:10', { exact: true }).first()).toBeVisible()
  // A joint is a place in the sheet, and no lesson of its own came with the file.
  const sheet = desk.getByTestId('run-sheet')
  await expect(sheet.locator('[data-joint]')).toHaveText(['From here: Casting off.mp4', 'From here: Mooring.mp4'])
  await hasNoAccessibilityFaults(desk)

  // Contents on both; then the second comes first, by keyboard, and its section with it.
  await desk.getByRole('link', { name: 'Mark up' }).click()
  await desk.getByRole('button', { name: 'Bring in contents' }).click()
  await desk.getByLabel(/A time and a title on each line/).fill('0:00 Casting off\n0:06 Mooring\n0:09 Making fast')
  await desk.getByRole('button', { name: /Take 3 sections/ }).click()
  await desk.getByRole('link', { name: 'Bring in', exact: true }).click()
  await recordings.getByRole('button', { name: 'Move Mooring.mp4', exact: true }).focus()
  await desk.keyboard.press('Space')
  await desk.waitForTimeout(300)
  await desk.keyboard.press('ArrowUp')
  await desk.waitForTimeout(300)
  await desk.keyboard.press('Space')
  await expect(sheet.locator('[data-joint]')).toHaveText(['From here: Mooring.mp4', 'From here: Casting off.mp4'])
  await expect(desk.getByText(/revision \d+: recordings in another order, 3 sections moved/)).toBeVisible()
  await expect(sheet.getByRole('button', { name: 'Go to 0:04, section 3' })).toBeVisible()

  // Playing goes over the joint.
  await recordings.getByRole('button', { name: 'Mooring.mp4', exact: true }).click()
  await desk.getByRole('button', { name: 'Go to 0:03, section 2' }).click()
  await desk.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(desk.locator('video')).toHaveAttribute('src', /\/view$/)
  await expect.poll(async () => Number((await desk.getByTestId('playing-time').textContent())?.slice(2)), { timeout: 20_000 }).toBeGreaterThan(4.3)
  await desk.getByRole('button', { name: 'Pause', exact: true }).click()

  // A shorter take: what falls outside is listed first; undo brings it back.
  const take = async () => {
    const [chooser] = await Promise.all([desk.waitForEvent('filechooser'), recordings.getByRole('button', { name: 'Replace Mooring.mp4' }).click()])
    await chooser.setFiles(page('Mooring again.mp4', 'teal', '640x360', 30, 2, 550))
  }
  await take()
  await expect(recordings.getByRole('alert')).toContainText('With that would go the section “Making fast” at 0:03.', { timeout: 60_000 })
  await recordings.getByRole('button', { name: 'Do it' }).click()
  await expect(sheet.locator('[data-joint]')).toHaveText(['From here: Mooring again.mp4', 'From here: Casting off.mp4'])
  await desk.getByRole('button', { name: 'Close' }).click()
  await desk.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(sheet.locator('[data-joint]')).toHaveText(['From here: Mooring.mp4', 'From here: Casting off.mp4'])
  await expect(sheet.getByText('Making fast')).toBeVisible()

  await desk.getByRole('link', { name: /^Tidy/ }).click()
  // Each is brought onto the canvas in its own way: the one that plays fills it, the other stays whole.
  const canvas = desk.getByRole('region', { name: 'Canvas' })
  await sheet.getByRole('button', { name: 'Go to 0:00' }).first().click()
  await expect(canvas).toContainText('Recording 1 of 2 is shown at')
  await expect(canvas).toContainText('25 % of the picture would be black at the sides.')
  await canvas.getByLabel('Filled').check()
  await expect(canvas).toContainText('25 % of the recording is left out above and below.')
  await sheet.getByRole('button', { name: 'Go to 0:04, section 3' }).click()
  await expect(canvas).toContainText('Recording 2 of 2 is shown at 100 %')
  await expect(canvas.getByLabel('Whole')).toBeChecked()
  await desk.getByRole('link', { name: 'Deliver' }).click()
  await openFiles(desk)
  await desk.getByRole('checkbox', { name: /Web, as recorded/ }).check({ timeout: 60_000 })
  await desk.getByRole('button', { name: 'Render', exact: true }).click()
  await expect(desk.getByRole('heading', { name: /File check .* everything is right/ })).toBeVisible({ timeout: 120_000 })
})
