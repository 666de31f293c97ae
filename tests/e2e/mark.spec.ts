import { expect, test } from '@playwright/test'
import { hasNoAccessibilityFaults, signIn } from './help'

test('the house’s mark is put on lessons, is seen at once on a lesson’s picture, and left away on one', async ({ page }) => {
  test.setTimeout(90_000)
  await signIn(page)
  await page.getByRole('link', { name: 'Kit' }).click()
  const section = page.getByRole('region', { name: 'Mark on lessons' })
  await section.getByLabel('Put it on the picture of lessons').check()
  const preview = section.getByAltText('The mark as it stands on lessons')
  await expect(preview).toBeVisible()
  await section.getByRole('radio', { name: 'top left' }).check()
  await expect.poll(() => preview.evaluate((i) => (i as HTMLElement).style.left)).toBe('5%')
  await section.getByLabel('Width, % of the picture').fill('200')
  await section.getByLabel('Width, % of the picture').press('Enter')
  await expect(section).toContainText('Between 2 and 60.')
  await section.getByLabel('Width, % of the picture').fill('30')
  await section.getByLabel('Width, % of the picture').press('Enter')
  await expect.poll(() => preview.evaluate((i) => (i as HTMLElement).style.width)).toBe('30%')
  await hasNoAccessibilityFaults(page)
  await section.getByRole('button', { name: /As usual/ }).click()
  await expect.poll(() => preview.evaluate((i) => (i as HTMLElement).style.left)).toBe('75%')

  await page.getByRole('link', { name: 'Lessons', exact: true }).click()
  await page
    .getByRole('link', { name: /Closing the till/ })
    .first()
    .click()
  await page.getByRole('link', { name: /^Tidy/ }).click()
  const mark = page.getByTestId('mark')
  await expect(mark).toBeVisible({ timeout: 60_000 })
  expect(await mark.evaluate((i) => getComputedStyle(i).opacity)).toBe('0.5')
  await page.getByLabel('On this lesson’s picture').uncheck()
  await expect(mark).toHaveCount(0)
  await expect(page.locator('header')).toContainText('house mark off')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(mark).toBeVisible()

  // The rest of the tests go on without it.
  await page.goto('/kit')
  await section.getByLabel('Put it on the picture of lessons').uncheck()
  await expect(preview).toHaveCount(0)
})
