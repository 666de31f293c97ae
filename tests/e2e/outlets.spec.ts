import { expect, test } from '@playwright/test'
import { hasNoAccessibilityFaults, signIn } from './help'

test('an outlet is added by what its kind asks, changed, and removed', async ({ page }) => {
  await signIn(page)
  await page.goto('/kit')
  await page.getByRole('link', { name: 'Add an outlet' }).click()
  await expect(page.getByText('Choose what it is.')).toBeVisible()
  await page.getByLabel(/Web server/i).check()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Add the web server' }).click()
  await expect(page.getByText(/Give the outlet a name/)).toBeVisible()
  await page.getByLabel('Name', { exact: true }).fill('Harbour web')
  await page.getByLabel('Address under which its folders are found').fill('harbour')
  await page.getByRole('button', { name: 'Add the web server' }).click()
  await expect(page.getByText(/Write the whole address under which the folders are found/)).toBeVisible()
  await page.getByLabel('Address under which its folders are found').fill('https://harbour.example/lessons/')
  await page.getByLabel('Put it into a folder of this server').check()
  await page.getByLabel('Folder, as a whole path').fill('lessons')
  await page.getByRole('button', { name: 'Add the web server' }).click()
  await expect(page.getByText('“lessons” is no whole path; write one such as /srv/www/lessons.')).toBeVisible()
  await page.getByLabel('Download it, and take it there').check()
  await page.getByRole('button', { name: 'Add the web server' }).click()

  // It stands in the Kit and on the board.
  await page.getByRole('link', { name: 'Name and settings: Harbour web' }).click()
  await expect(page.getByLabel('Address under which its folders are found')).toHaveValue('https://harbour.example/lessons/')
  await expect(
    page
      .getByRole('row', { name: /^Completion/ })
      .getByText('It is kept in the learner’s browser alone.')
      .first(),
  ).toBeVisible()
  await hasNoAccessibilityFaults(page)
  // What becomes of a lesson stands beside what becomes of it elsewhere.
  await expect(page.getByRole('columnheader', { name: 'web server this outlet' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^Completion/ }).getByText('not there')).toHaveCount(1)
  await page.getByLabel('Name', { exact: true }).fill('Harbour pages')
  await page.getByRole('button', { name: 'Save the outlet' }).click()
  await expect(page.getByRole('heading', { name: 'Harbour pages', level: 1 })).toBeVisible()
  await page.goto('/board')
  await expect(page.getByRole('columnheader', { name: /Harbour pages\s*web server/ })).toBeVisible()

  await page.goto('/kit')
  await page.getByRole('link', { name: 'Name and settings: Harbour pages' }).click()
  await page.getByRole('button', { name: 'Remove “Harbour pages”' }).click()
  await expect(page.getByRole('link', { name: 'Add an outlet' })).toBeVisible()
  await expect(page.getByText('Harbour pages')).toHaveCount(0)
})
