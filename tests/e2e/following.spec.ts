import { expect, test } from '@playwright/test'
import { simpleParser } from 'mailparser'
import { clip, hasNoAccessibilityFaults, newcomer, release, signIn } from './help'
import { ports } from './playwright.config'

test.describe.configure({ timeout: 300_000 })

test('who follows a channel is told of what is new by a mail that an independent program reads', async ({ page, browser }) => {
  const learners = await (await browser.newContext({ baseURL: `http://127.0.0.1:${ports.server}` })).newPage()
  await signIn(learners, newcomer)
  await expect(async () => {
    await learners.goto('/c/staff-channel')
    await expect(learners.getByRole('button', { name: 'Follow: Staff channel' })).toBeVisible({ timeout: 2000 })
  }).toPass({ timeout: 240_000 })
  await learners.getByRole('button', { name: 'Follow: Staff channel' }).click()
  await expect(learners.getByRole('button', { name: 'Follow no more: Staff channel' })).toBeVisible()
  await hasNoAccessibilityFaults(learners)

  await signIn(page)
  const outlets = await (await page.request.get('/api/outlets')).json()
  const channel = outlets.find((o: { kind: string }) => o.kind === 'channel')
  const said = await (await page.request.get(`/api/outlets/${channel.id}/details`)).json()
  expect((await page.request.put(`/api/outlets/${channel.id}/details`, { data: { ...said.set, tellFollowers: true } })).ok()).toBe(true)
  await page.goto('/')
  await page.getByLabel('Choose recordings').setInputFiles(clip('followed.mp4', 6))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByLabel('Title', { exact: true }).fill('Ropes – and rings')
  await page.getByRole('link', { name: 'Deliver' }).click()
  await release(page, page.getByTestId('outlet-channel'), 'The organisation')

  const letters = async () =>
    ((await (await page.request.get(`http://127.0.0.1:${ports.outside}/mail.json`)).json()) as { number: number; to: string; subject: string }[]).filter(
      (m) => m.to.includes(newcomer) && m.subject.includes('Ropes'),
    )
  await expect.poll(async () => (await letters()).length, { timeout: 60_000 }).toBe(1)
  const [letter] = await letters()
  const raw = await (await page.request.get(`http://127.0.0.1:${ports.outside}/mail/${letter?.number}/raw`)).body()
  const mail = await simpleParser(raw)
  expect(mail.subject).toBe('New: Ropes – and rings')
  expect(mail.text).toContain('because you follow the channel “Staff channel”')
  expect(mail.attachments.map((a) => [a.cid, a.contentType, a.related])).toEqual([['lesson-1', 'image/jpeg', true]])
  // RFC 2369 and RFC 8058, section 3.1, as the program understands them.
  const list = mail.headers.get('list') as unknown as Record<string, { url?: string; name?: string }>
  expect(list.unsubscribe?.url).toMatch(/\/follow\/stop\//)
  expect(list['unsubscribe-post']?.name).toBe('List-Unsubscribe=One-Click')

  // The mail as a mail program shows it, and the way out of it.
  await learners.setContent(mail.html as string)
  await expect(learners.getByRole('heading', { name: 'Ropes – and rings' })).toBeVisible()
  await learners.goto(list.unsubscribe?.url as string)
  await hasNoAccessibilityFaults(learners)
  await learners.getByRole('button', { name: 'Tell me of it no more' }).click()
  await learners.goto('/account')
  await expect(learners.getByText('Nothing. On a channel’s page you can follow it')).toBeVisible()
  const kept = learners.waitForResponse((r) => r.url().endsWith('/api/me/follows') && r.request().method() === 'GET' && r.ok())
  await learners.getByLabel('once a day, in the morning').check()
  await kept
  await learners.reload()
  await expect(learners.getByLabel('once a day, in the morning')).toBeChecked()
  await learners.context().close()
})
