import { expect, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, learner, release, signIn } from './help'

test.describe.configure({ timeout: 300_000 })

test('a list is made where a lesson is released, and is chosen already at the next', async ({ page, browser }) => {
  const learners = await (await browser.newContext({ baseURL: test.info().project.use.baseURL })).newPage()
  await signIn(page)
  const deliver = async (title: string) => {
    await page.goto('/')
    await page.getByLabel('Choose recordings').setInputFiles(clip(`${title}.mp4`, 6))
    await page.waitForURL(/\/lessons\/.*\/bring-in/)
    await page.getByRole('button', { name: 'Close' }).click()
    await page.getByLabel('Title', { exact: true }).fill(title)
    await page.getByRole('link', { name: 'Deliver' }).click()
    await page.getByTestId('outlet-channel').getByRole('checkbox').first().check({ timeout: 90_000 })
  }
  const lists = page.getByTestId('lists')
  await deliver('Knots for one hand')
  await lists.getByRole('button', { name: 'Make a new list' }).click()
  await lists.getByLabel('What the list is called').fill('Rainy days')
  await lists.getByLabel('Who may see the list').selectOption({ label: 'Everybody' })
  await hasNoAccessibilityFaults(page)
  await lists.getByRole('button', { name: 'Make the list' }).click()
  await expect(lists.getByRole('checkbox', { name: /Rainy days/ })).toBeChecked()
  await release(page, page.getByTestId('outlet-channel'), 'The organisation')
  await expect(lists.getByText('1 of 1 are hidden: 1 from people outside the organisation.')).toBeVisible()
  const link = await lists.getByLabel('Link').inputValue()

  // The last one is likely the next one.
  await deliver('Knots for two hands')
  await expect(lists.getByRole('checkbox', { name: /Rainy days/ })).toBeChecked()
  await release(page, page.getByTestId('outlet-channel'), 'The organisation')

  await page.goto('/kit/lists')
  await page.getByRole('button', { name: 'Open Rainy days' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Knots for two hands' }).first()).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Move Knots for two hands' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/Knots for two hands would be .* 2 of 2/)).toBeAttached()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByText(/Knots for two hands would be .* 1 of 2/)).toBeAttached()
  const saved = page.waitForResponse((r) => r.url().includes('/order'))
  await page.keyboard.press('Space')
  expect((await saved).status()).toBe(204)

  await signIn(learners, learner)
  await learners.goto('/channel')
  await learners.getByRole('link', { name: 'Rainy days' }).click()
  await expect(learners).toHaveURL(link)
  await expect(learners.getByRole('heading', { level: 2 })).toHaveText(['Knots for two hands', 'Knots for one hand'])
  await hasNoAccessibilityFaults(learners)
  // Who is not signed in may see the list, and nothing of what is in it.
  await learners.context().clearCookies()
  await learners.goto(link)
  await expect(learners.getByText('Nothing in this list is for you, or nothing is in it yet.')).toBeVisible()
  await learners.context().close()
})
