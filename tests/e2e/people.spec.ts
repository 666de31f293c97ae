import { expect, test } from '@playwright/test'
import { hasNoAccessibilityFaults, learner, newcomer, signIn } from './help'
import { ports } from './playwright.config'

test.describe.configure({ timeout: 300_000 })

test('a lesson is for a group alone, until it is for everybody again', async ({ page, browser }) => {
  await signIn(page)
  await page.goto('/kit/people')
  await page.getByLabel('A new group').fill('Harbour walk')
  await page.getByRole('button', { name: 'Add' }).last().click()
  await page.getByLabel('Put somebody in').fill('joss')
  await page.getByRole('button', { name: 'Put Joss Reed in' }).click()
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
  await expect(channel).toContainText(/(Live|Behind) since/, { timeout: 280_000 })
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

test('somebody without an account is named, gets a mail, and opens the lesson by a code', async ({ page, browser, request }) => {
  await signIn(page)
  await page.goto('/')
  await page
    .getByRole('link', { name: /Opening the desk/ })
    .first()
    .click()
  const channel = page.getByTestId('outlet-channel')
  const who = channel.getByLabel(/^Who may see it/)
  await expect(channel).toContainText(/(Live|Behind) since/, { timeout: 280_000 })
  await who.selectOption({ label: 'Named people' })
  await channel.getByLabel(/^Mail address or group/).fill('inge@harbour.example')
  await channel.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(channel.getByText(/inge@harbour.example has no account: a mail goes there/)).toBeVisible()

  const mailed = async (what: RegExp) => {
    let found: RegExpMatchArray | null | undefined
    await expect(async () => {
      const mails = (await (await request.get(`http://127.0.0.1:${ports.outside}/mail.json`)).json()) as { to: string; subject: string; text: string }[]
      found = mails
        .filter((m) => m.to.includes('inge@harbour.example'))
        .map((m) => `${m.subject}\n${m.text}`.match(what))
        .filter(Boolean)
        .pop()
      expect(found).toBeTruthy()
    }).toPass({ timeout: 60_000 })
    return (found as RegExpMatchArray)[0]
  }
  const context = await browser.newContext()
  const guest = await context.newPage()
  await guest.goto(await mailed(/http\S+\/watch\/\S+/))
  await expect(guest.getByText(/a code can be sent to your mail address/)).toBeVisible()
  await guest.getByRole('link', { name: 'Sign in' }).click()
  await guest.getByRole('button', { name: 'Have a code sent' }).click()
  await hasNoAccessibilityFaults(guest)
  await guest.getByLabel(/^Mail address/).fill('inge@harbour.example')
  await guest.getByRole('button', { name: 'Send the code' }).click()
  await guest.getByLabel('Code').fill('12')
  await guest.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(guest.getByText(/That is not the code of the last mail/)).toBeVisible()
  await hasNoAccessibilityFaults(guest)
  await guest.getByLabel('Code').fill((await mailed(/\d{6} is your code/)).slice(0, 6))
  await guest.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(guest.getByRole('heading', { level: 1, name: 'Opening the desk' })).toBeVisible()
  await who.selectOption({ label: 'Everybody' })
  await expect(channel.getByText(/search engines are told of it/)).toBeVisible()
  await context.close()
})

test('people come from a list whose lines say what they do, choose a password by a mail, and are let in no more', async ({ page, browser, request }) => {
  await signIn(page)
  await page.goto('/kit/people')
  const list = 'Name;Mail;Role;Groups\nIda Moor;ida.moor@brackwater.example;trainer;"Office, upstairs"\nX;no address;;\n'
  await page.getByLabel('Choose a list of people').setInputFiles({ name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from(list) })
  const lines = page.getByRole('list', { name: 'What each line will do' })
  await expect(lines).toContainText('Added as a trainer, in Office, upstairs.')
  await expect(lines).toContainText('“no address” is no mail address.')
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Add 1' }).click()
  await expect(page.getByText('Done: 2 lines.')).toBeVisible()
  const row = page.getByRole('row', { name: /Ida Moor/ })
  await expect(row).toContainText('Office, upstairs')

  const link = async () => {
    let found: string | undefined
    await expect(async () => {
      const mails = (await (await request.get(`http://127.0.0.1:${ports.outside}/mail.json`)).json()) as { to: string; text: string }[]
      found = mails
        .filter((m) => m.to.includes('ida.moor@brackwater.example'))
        .pop()
        ?.text.match(/http\S+new-password#\S+/)?.[0]
      expect(found).toBeTruthy()
    }).toPass({ timeout: 60_000 })
    return found as string
  }
  const ida = await (await browser.newContext()).newPage()
  await ida.goto(await link())
  await ida.getByLabel(/^New password/).fill('short')
  await ida.getByRole('button', { name: 'Take this password' }).click()
  await expect(ida.getByText(/at least 10/)).toBeVisible()
  await hasNoAccessibilityFaults(ida)
  await ida.getByLabel(/^New password/).fill('Lantern on the quay')
  await ida.getByRole('button', { name: 'Take this password' }).click()
  await ida.getByRole('link', { name: 'Sign in with it' }).click()
  await ida.getByLabel('Mail address').fill('ida.moor@brackwater.example')
  await ida.getByLabel('Password').fill('Lantern on the quay')
  await ida.getByRole('button', { name: 'Sign in', exact: true }).click()
  await ida.waitForURL((url) => url.pathname === '/')
  // A trainer is told who adds people, and finds no way to do so.
  await ida.goto('/kit/people')
  await expect(ida.getByText('People are added and changed by an administrator: Mara Tarn.')).toBeVisible()
  await expect(ida.getByRole('button', { name: /^Change / })).toHaveCount(0)

  await row.getByRole('button', { name: 'Change Ida Moor' }).click()
  await row.getByRole('button', { name: 'Let in no more' }).click()
  await row.getByRole('button', { name: 'Sign out everywhere, for good' }).click()
  await expect(row).toContainText('can sign in no more')
  await ida.reload()
  await expect(ida.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await ida.getByRole('button', { name: 'I have forgotten my password' }).click()
  await ida.getByLabel(/^Mail address/).fill('ida.moor@brackwater.example')
  await ida.getByRole('button', { name: 'Send me a link' }).click()
  await expect(ida.getByText(/If this address has an account/)).toBeVisible()
  await hasNoAccessibilityFaults(ida)
})
