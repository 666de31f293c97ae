import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { folder, signIn } from './help'

test('a lesson is saved as a file and brought in again, with all that it has', async ({ page }) => {
  await signIn(page)
  await page.getByRole('link', { name: 'Opening the desk' }).first().click()
  await page.getByRole('link', { name: 'Bring in', exact: true }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'With its recordings, as a ZIP' }).click()
  const zip = join(folder, 'opening.wexel.zip')
  await (await download).saveAs(zip)
  const before = page.url()

  await page.getByLabel('Choose recordings', { exact: true }).setInputFiles(zip)
  await expect(page).not.toHaveURL(before)
  await expect(page).toHaveURL(/\/lessons\/.*\/bring-in/)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Opening the desk')
  // Others of this server's tests look for the one lesson of that name.
  const saved = page.waitForResponse((answer) => answer.url().endsWith('/document') && answer.ok())
  await page.getByLabel('Title', { exact: true }).fill('Brought in again')
  await saved
  await page.getByRole('link', { name: 'Mark up', exact: true }).click()
  await expect(page.getByText(/opening\.en\.vtt/).first()).toBeVisible()
})
