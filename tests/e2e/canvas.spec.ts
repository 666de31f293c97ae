import { expect, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, signIn } from './help'

test('a canvas is chosen, what it comes to is said, and a part is framed by its corners and by numbers', async ({ page }) => {
  test.setTimeout(120_000)
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(clip('framing.mp4', 7))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByRole('link', { name: /^Tidy/ }).click()
  const canvas = page.getByRole('region', { name: 'Canvas' })
  await expect(canvas).toContainText('Shown at 100 %, a whole factor')
  await canvas.getByLabel('Size').selectOption('640x480')
  await expect(canvas).toContainText(
    '25 % of the picture would be black above and below. Filled, nothing is black, and 25 % of the recording is left out at the sides.',
  )
  const video = page.locator('video')
  const box = async () => {
    const [v, v2] = [await video.boundingBox(), await video.locator('..').boundingBox()]
    if (!v || !v2) throw new Error('There is no picture.')
    return { left: (v.x - v2.x) / v2.width, top: (v.y - v2.y) / v2.height, width: v.width / v2.width, height: v.height / v2.height }
  }
  await expect.poll(async () => Math.round((await box()).height * 100)).toBe(75)
  await canvas.getByLabel('Filled').check()
  await expect(canvas).toContainText('25 % of the recording is left out at the sides.')
  await expect.poll(async () => Math.round((await box()).width * 100)).toBe(133)

  await canvas.getByLabel('Size').selectOption('')
  await canvas.getByLabel('A part').check()
  await canvas.getByLabel('Width, px').fill('320')
  await canvas.getByLabel('Width, px').press('Enter')
  await canvas.getByLabel('Height, px').fill('180')
  await canvas.getByLabel('Height, px').press('Enter')
  await expect(canvas).toContainText('Shown at 200 %')
  await canvas.getByRole('button', { name: 'Move the part' }).focus()
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('ArrowDown')
  await expect(canvas.getByLabel('Left, px')).toHaveValue('10')
  await expect(canvas.getByLabel('Top, px')).toHaveValue('1')
  await hasNoAccessibilityFaults(page)
  const corner = await canvas.getByRole('button', { name: 'Move the bottom right corner' }).boundingBox()
  const frame = await page.getByTestId('part-frame').boundingBox()
  if (!corner || !frame) throw new Error('There is no frame.')
  await page.mouse.move(corner.x + 12, corner.y + 12)
  await page.mouse.down()
  await page.mouse.move(corner.x + 12 + frame.width / 4, corner.y + 12 + frame.height / 4, { steps: 5 })
  await page.mouse.up()
  await expect.poll(async () => Number(await canvas.getByLabel('Width, px').inputValue())).toBeGreaterThan(470)
  await page.getByRole('heading', { name: 'Canvas' }).click()
  await page.keyboard.press('Control+z')
  await expect(canvas.getByLabel('Width, px')).toHaveValue('320')
  await page.waitForLoadState('networkidle')
  await page.reload()
  await expect(canvas.getByLabel('Left, px')).toHaveValue('10')
})
