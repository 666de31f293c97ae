import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { folder, hasNoAccessibilityFaults, openFiles, signIn } from './help'

const said =
  'Good morning, and welcome to the ticket desk. Open the list of sailings, and choose the one that leaves next. ' +
  'Ask for the name first, then how many they are. When the fare is there, say it aloud, and hold out the reader for the card.'

/** A grey screen on which something small moves at the bottom right between 4 and 5 s, and a red camera that started a second earlier; both hear one voice. */
function clips() {
  const [speech, screen, camera] = ['desk.wav', 'desk with camera.mp4', 'mara at the desk.mp4'].map((name) => join(folder, name))
  execFileSync('espeak-ng', ['-v', 'en-us', '-s', '140', '-w', speech, said])
  const make = (picture: string, from: number, seconds: number, heard: string, to: string) =>
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-f', 'lavfi', '-i', picture, '-ss', String(from), '-i', speech, '-af', `${heard},aresample=48000`],
      ...['-t', String(seconds), '-pix_fmt', 'yuv420p', '-c:a', 'aac', to],
    ])
  const moving = "drawbox=x='580+20*sin(t*6)':y=310:w=10:h=16:c=white:t=fill:enable='between(t,4,5)'"
  make(`color=0x808080:s=640x360:r=30:d=16,${moving}`, 1, 11, 'anull', screen)
  make('color=red:s=320x180:r=25:d=16', 0, 12, 'volume=0.4,highpass=f=250,aecho=0.8:0.6:23:0.3', camera)
  return { screen, camera }
}

/** Where the camera stands on the picture, as shares of it; null where it is not seen. */
const boxOf = (page: Page) =>
  page.getByTestId('camera').evaluate((camera) => {
    if (getComputedStyle(camera).visibility === 'hidden') return null
    const [own, all] = [camera.getBoundingClientRect(), (camera.parentElement as HTMLElement).getBoundingClientRect()]
    return { x: (own.x - all.x) / all.width, y: (own.y - all.y) / all.height, width: own.width / all.width, height: own.height / all.height }
  })

const seek = async (page: Page, seconds: number) => {
  await page.getByLabel('The recording').evaluate((v: HTMLVideoElement, at) => {
    v.currentTime = at
  }, seconds)
  await expect(page.getByTestId('playing-time')).toContainText(`0:0${Math.floor(seconds)}`)
}

/** Whether places of a frame of a file are red, each given as shares of the picture. */
function areRed(file: string, seconds: number, places: [number, number][]) {
  const [width, height] = [640, 360]
  const frame = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-ss', String(seconds), '-i', file, '-frames:v', '1', '-vf', `scale=${width}:${height}`, '-pix_fmt', 'rgb24', '-f', 'rawvideo', '-'],
    { maxBuffer: 1 << 24 },
  )
  return places.map(([x, y]) => {
    const at = (Math.floor(y * height) * width + Math.floor(x * width)) * 3
    return frame[at] > 180 && frame[at + 1] < 60 && frame[at + 2] < 60
  })
}

test('a camera is laid over the screen, found by its sound, keeps clear, and is rendered where it was seen', async ({ page }) => {
  test.setTimeout(240_000)
  const { screen, camera } = clips()
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(screen)
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByLabel('Title', { exact: true }).fill('With a camera')
  await page.getByRole('link', { name: /^Tidy/ }).click()
  const panel = page.getByRole('region', { name: 'Camera', exact: true })
  await expect(panel).toContainText('When it starts is found by its sound.')
  await page.getByLabel('Choose a camera’s recording').setInputFiles(camera)
  await expect(panel).toContainText('The camera started 1.00 s before the screen', { timeout: 90_000 })
  await expect(panel.getByLabel('It starts at, s')).toHaveValue(/^-(1|0\.99\d|1\.00\d)$/)
  await page.getByRole('button', { name: 'Close' }).click()

  // Small at the bottom right, and out of the way while something moves there.
  await seek(page, 1)
  await expect.poll(() => boxOf(page), { timeout: 30_000 }).toMatchObject({ width: expect.closeTo(0.2, 2) })
  const usual = await boxOf(page)
  expect(usual?.x).toBeGreaterThan(0.7)
  expect(usual?.y).toBeGreaterThan(0.6)
  await seek(page, 4.5)
  await expect.poll(async () => ((await boxOf(page))?.x ?? 1) < 0.3 || ((await boxOf(page))?.y ?? 1) < 0.3).toBe(true)
  const away = await boxOf(page)

  // Its own moment, also while it plays.
  const apart = () =>
    page.evaluate(() => {
      const [own, main] = [document.querySelector('[data-testid=camera] video'), document.querySelector('[data-testid=page] video')] as HTMLVideoElement[]
      return Math.abs(own.currentTime - main.currentTime - 1)
    })
  await expect.poll(apart).toBeLessThan(0.05)
  await seek(page, 1)
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await page.waitForTimeout(1500)
  await page.getByRole('button', { name: 'Pause' }).click()
  await expect.poll(apart).toBeLessThan(0.05)

  // Large in a selected stretch, which stands in the sheet.
  await page.getByLabel('The recording').evaluate((v: HTMLVideoElement) => v.pause())
  await seek(page, 7)
  await page.keyboard.press('[')
  await page.keyboard.press('Shift+ArrowRight')
  const stretch = page.getByRole('region', { name: 'Selected stretch' })
  await stretch.getByLabel('To', { exact: true }).fill('0:09')
  await stretch.getByLabel('To', { exact: true }).press('Enter')
  await panel.getByRole('button', { name: 'Large' }).click()
  await expect(page.getByTestId('run-sheet').getByText('The camera is large')).toBeVisible()
  await seek(page, 8)
  // But for the line around the picture.
  await expect.poll(async () => (await boxOf(page))?.width).toBeGreaterThan(0.99)
  await hasNoAccessibilityFaults(page)

  // By hand: another corner, square, and a frame later; undone again.
  await panel.getByRole('radio', { name: 'top left' }).check()
  await panel.getByLabel('Rounded, %').fill('0')
  await panel.getByLabel('Rounded, %').press('Enter')
  await seek(page, 1)
  await expect.poll(async () => (await boxOf(page))?.x).toBeLessThan(0.1)
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect.poll(async () => (await boxOf(page))?.x).toBeCloseTo(usual?.x ?? 0, 2)

  // In the file it stands where it stood on the desk.
  await page.getByRole('link', { name: 'Deliver' }).click()
  await openFiles(page)
  await page.getByRole('checkbox', { name: /Web, as recorded/ }).check({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await expect(page.getByRole('heading', { name: /File check .* everything is right/ })).toBeVisible({ timeout: 120_000 })
  const lesson = /lessons\/([^/]+)/.exec(page.url())?.[1]
  const made = (await (await page.request.get(`/api/lessons/${lesson}/deliver`)).json()).renditions[0].id
  const middle = (box: Awaited<ReturnType<typeof boxOf>>): [number, number] => [(box?.x ?? 0) + (box?.width ?? 0) / 2, (box?.y ?? 0) + (box?.height ?? 0) / 2]
  const file = join(folder, 'with a camera.mp4')
  writeFileSync(file, await (await page.request.get(`/api/renditions/${made}/file`)).body())
  const [there, elsewhere] = [middle(usual), middle(away)]
  expect(areRed(file, 1, [there, elsewhere, [0.5, 0.5]])).toEqual([true, false, false])
  expect(areRed(file, 4.5, [there, elsewhere, [0.5, 0.5]])).toEqual([false, true, false])
  expect(areRed(file, 8, [there, elsewhere, [0.5, 0.5]])).toEqual([true, true, true])
})

test('a camera that heard something else is said, and set by hand', async ({ page }) => {
  test.setTimeout(120_000)
  const { screen } = clips()
  const other = join(folder, 'hall.mp4')
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'color=blue:s=320x180:r=24000/1001:d=6', '-f', 'lavfi', '-i', 'anoisesrc=d=6:a=0.1'],
    ...['-pix_fmt', 'yuv420p', '-c:a', 'aac', other],
  ])
  const another = join(folder, 'desk alone.mp4')
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', screen, '-c', 'copy', '-metadata', 'title=alone', another])
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(another)
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('link', { name: /^Tidy/ }).click()
  const panel = page.getByRole('region', { name: 'Camera', exact: true })
  await page.getByLabel('Choose a camera’s recording').setInputFiles(other)
  await expect(panel).toContainText('no sound in common', { timeout: 60_000 })
  await page.getByRole('button', { name: 'Close' }).click()
  await panel.getByLabel('It starts at, s').fill('2')
  await panel.getByLabel('It starts at, s').press('Enter')
  await expect(panel).toContainText('The camera starts 2.00 s after the screen; until then it is not seen.')
  await expect(panel).toContainText(/The camera ends (2\.9|3\.0)/)
  await panel.getByRole('button', { name: 'A frame later' }).click()
  await expect(panel.getByLabel('It starts at, s')).toHaveValue('2.033')
  await seek(page, 1)
  await expect.poll(() => boxOf(page)).toBeNull()
  await panel.getByRole('button', { name: 'Take it away' }).click()
  await expect(panel).toContainText('Lay a camera over it')
})
