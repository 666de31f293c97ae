import { expect, type Page, test } from '@playwright/test'
import { hasNoAccessibilityFaults, saysNothingIsOfOthers, signIn } from './help'

const row = (page: Page, title: string) => page.getByRole('row').filter({ hasText: title })
const cell = (page: Page, title: string, column: number) => row(page, title).getByRole('gridcell').nth(column)
const plan = (page: Page) => page.getByRole('region', { name: 'Plan' })

test('cells are selected by mouse and by keys, planned, applied, opened and taken down', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  // Whether there is material of others in it is asked under Deliver, once.
  await page.getByRole('link', { name: /Selling a vehicle crossing/ }).click()
  await page.getByRole('link', { name: 'Deliver' }).click()
  await page.getByTestId('outlet-webServer').getByRole('checkbox').first().check({ timeout: 90_000 })
  await saysNothingIsOfOthers(page)
  await expect(page.getByText(/file is rendered; about/)).toBeVisible()

  await page.goto('/board')
  await expect(page.getByRole('gridcell').first()).toBeVisible()
  const outlets = await page.getByRole('columnheader').allInnerTexts()
  const [channel, web] = [/channel/, /web server/].map((kind) => outlets.findIndex((o) => kind.test(o)) - 1)
  await page.getByLabel('Find lessons by words').fill('vehicle')
  await expect(page.getByText(/^1 of \d+ lessons/)).toBeVisible()
  await cell(page, 'Vehicle crossing', web).click()
  await expect(plan(page).getByRole('heading', { name: '1 cell selected' })).toBeVisible()
  await expect(plan(page).getByText(/^Render 1 file, about/)).toBeVisible()
  await expect(plan(page).getByText('1 release where nothing stood.')).toBeVisible()
  await hasNoAccessibilityFaults(page)

  // By keys: all of the lesson, nothing, and from cell to cell.
  await page.keyboard.press('Shift+Space')
  await expect(plan(page).getByRole('heading', { name: `${outlets.length - 1} cells selected` })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(plan(page)).toHaveCount(0)
  await cell(page, 'Vehicle crossing', 0).focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(plan(page).getByRole('heading', { name: '2 cells selected' })).toBeVisible()
  await page.keyboard.press('Escape')

  await cell(page, 'Vehicle crossing', web).click()
  await cell(page, 'Vehicle crossing', channel).click()
  await plan(page).getByRole('button', { name: 'Apply to 2 cells' }).click()
  for (const column of [web, channel]) await expect(cell(page, 'Vehicle crossing', column).getByText('Live')).toBeVisible({ timeout: 150_000 })

  // Applied, there is nothing to do; who may see it changes without anything being made.
  await cell(page, 'Vehicle crossing', channel).click()
  await expect(plan(page).getByText(/Nothing is to be done/)).toBeVisible()
  await plan(page).getByLabel('Change who may see them').check()
  await expect(plan(page).getByText('Choose who is to see them.')).toBeVisible()
  await plan(page).getByLabel('Who may see them on Wexel’s pages').selectOption('Whoever has the address')
  await expect(plan(page).getByText('1 release changes who may see it, and nothing else.')).toBeVisible()
  await plan(page).getByRole('button', { name: 'Apply to 1 cell' }).click()
  await expect(cell(page, 'Vehicle crossing', channel).getByText(/by address/)).toBeVisible()

  await cell(page, 'Vehicle crossing', channel).click()
  await plan(page).getByLabel('Take down').check()
  await expect(plan(page).getByText('1 release taken down; its address is kept, and says so.')).toBeVisible()
  await plan(page).getByRole('button', { name: 'Take 1 down' }).click()
  await expect(cell(page, 'Vehicle crossing', channel).getByText('Taken down')).toBeVisible()

  // What was done is told.
  await page.goto('/kit/done')
  await expect(page.getByRole('row', { name: /Mara Tarn applied a plan on the board/ }).first()).toBeVisible()
  await hasNoAccessibilityFaults(page)
})
