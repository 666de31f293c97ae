import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { folder, newcomer, signIn, trainer } from './help'
import { ports } from './playwright.config'

test.describe.configure({ timeout: 300_000 })

interface Message {
  type: string
  url: string
  lastLine?: number
  message: string
}

/** What the W3C's Nu checker has against pages, information left aside. */
function faults(files: string[]): string[] {
  const jar = createRequire(import.meta.url)('vnu-jar') as string
  const said = execFileSync('java', ['-jar', jar, '--format', 'json', '--stdout', '--exit-zero-always', ...files]).toString()
  const { messages } = JSON.parse(said) as { messages: Message[] }
  return messages.filter((m) => m.type !== 'info').map((m) => `${m.url.split('/').pop()}:${m.lastLine} ${m.message}`)
}

test('the HTML of every learner page is valid', async ({ page, request }) => {
  await signIn(page, newcomer)
  await expect(async () => {
    await page.goto('/channel')
    await page.getByRole('link', { name: 'Opening the desk' }).waitFor({ timeout: 1000 })
  }).toPass({ timeout: 280_000 })
  const watch = (await page.getByRole('link', { name: 'Opening the desk' }).getAttribute('href')) as string
  const pages = {
    watch,
    embed: watch.replace('/watch/', '/embed/'),
    channel: '/channel',
    search: '/search?q=desk',
    missing: '/watch/nothing',
    desk: '/sign-in',
  }
  const outside = ['', 'mail', 'host', 'learning', 'discussion', 'page-editor', 'podcasts', 'directory']
  const written: string[] = []
  const keep = async (name: string, address: string) => {
    const path = join(folder, `${name}.html`)
    writeFileSync(path, await (await page.request.get(address)).text())
    written.push(path)
  }
  for (const [name, address] of Object.entries(pages)) await keep(name, address)
  // Where a feed is subscribed to, a trainer knows.
  await request.post('/api/sign-in', { data: { email: trainer, password: 'Ferry-2026' } })
  const outlets: { id: string; kind: string }[] = await (await request.get('/api/outlets')).json()
  const feeds = await Promise.all(outlets.filter((o) => o.kind === 'podcastFeed').map(async (o) => (await request.get(`/api/feeds/${o.id}`)).json()))
  // Another test may have made one for listeners of its own, which has no page for everybody.
  const feed = feeds.find((f) => !f.settings.private)
  await keep('subscribe', feed.subscribePage)
  await keep('outside-skerry', `http://127.0.0.1:${ports.server + 4}/`)
  for (const path of outside) await keep(`outside-${path || 'home'}`, `http://127.0.0.1:${ports.outside}/${path}`)
  expect(written).toHaveLength(16)
  expect(faults(written)).toEqual([])
})
