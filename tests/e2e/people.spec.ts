import { expect, test } from '@playwright/test'
import { hasNoAccessibilityFaults, learner, newcomer, signIn } from './help'

test.describe.configure({ timeout: 300_000 })

test('a lesson is for a group alone, until it is for everybody again', async ({ page, browser }) => {
  await signIn(page)
  await page.goto('/kit/people')
  await page.getByLabel('A new group').fill('Harbour walk')
  await page.getByRole('button', { name: 'Add' }).click()
  await page.getByLabel('Joss Reed').check()
  await expect(page.getByText('1 member')).toBeVisible()
  await page.getByLabel('A new group').fill('harbour walk ')
  await hasNoAccessibilityFaults(page)

  await page.goto('/')
  await page
    .getByRole('link', { name: /Opening the desk/ })
    .first()
    .click()
  const channel = page.getByTestId('outlet-channel')
  const who = channel.getByLabel(/^Who may see it/)
  await expect(channel.getByText('Live', { exact: true })).toBeVisible({ timeout: 280_000 })
  const address = (await channel.getByLabel('Link', { exact: true }).inputValue()) as string
  await who.selectOption({ label: 'Named people' })
  await expect(channel.getByText('Nobody is named yet; it stays as it was until somebody is.')).toBeVisible()
  const said = page.waitForResponse((r) => r.url().includes('/visibility'))
  await channel.getByLabel(/^Mail address or group/).fill('Harbour walk')
  await channel.getByRole('button', { name: 'Add', exact: true }).click()
  expect((await said).status()).toBe(204)
  await expect(channel.getByRole('list', { name: /^Who is named/ }).getByText('group of 1')).toBeVisible()
  await expect(channel.getByText(/Only named people can play it/).first()).toBeVisible()
  await hasNoAccessibilityFaults(page)

  const sees = async (mail: string) => {
    const context = await browser.newContext({ baseURL: new URL(page.url()).origin })
    const other = await context.newPage()
    await signIn(other, mail)
    const answer = await other.goto(address)
    const text = await other.locator('h1').textContent()
    await other.goto('/channel')
    const listed = (await other.getByRole('link', { name: 'Opening the desk' }).count()) > 0
    await context.close()
    return { status: answer?.status(), text, listed }
  }
  expect(await sees(learner)).toEqual({ status: 200, text: 'Opening the desk', listed: true })
  expect(await sees(newcomer)).toEqual({ status: 403, text: 'This lesson is for others', listed: false })

  // Only the address, and it is in no list, also not for people who are signed in.
  await who.selectOption({ label: 'Whoever has the address' })
  await expect(channel.getByText(/also not by people who are signed in/)).toBeVisible()
  await expect(async () => expect(await sees(newcomer)).toEqual({ status: 200, text: 'Opening the desk', listed: false })).toPass()
  await who.selectOption({ label: 'Everybody' })
  await expect(async () => expect(await sees(newcomer)).toEqual({ status: 200, text: 'Opening the desk', listed: true })).toPass()
})
