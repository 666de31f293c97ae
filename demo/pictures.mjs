// Takes the pictures in docs/screenshots from a running `./wexel up` (WEXEL_PORT, 5080 otherwise).
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import launch from './chromium.json' with { type: 'json' }

const port = Number(process.env.WEXEL_PORT ?? 5080)
const shots = join(dirname(fileURLToPath(import.meta.url)), '..', 'docs', 'screenshots')
const browser = await chromium.launch(launch)
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: `http://127.0.0.1:${port}` })).newPage()
const take = async (name) => {
  await page.waitForLoadState('networkidle')
  await page.waitForTimeout(400)
  await page.screenshot({ path: join(shots, `${name}.png`) })
}

await page.goto('/')
await page.getByLabel('Mail address').fill('mara.tarn@brackwater.example')
await page.getByLabel('Password').fill('Ferry-2026')
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByRole('heading', { name: 'Lessons', exact: true }).waitFor()
await take('lessons')
await page.getByRole('link', { name: /Selling a vehicle crossing/ }).click()
await page.getByRole('button', { name: 'Go to 1:27, section 2' }).click()
await page.waitForTimeout(1500)
await take('mark-up')
await page.getByRole('link', { name: 'Bring in', exact: true }).click()
await take('bring-in')
await page.goto('/')
await page.getByRole('link', { name: /Opening the desk/ }).click()
await page.getByRole('link', { name: 'Deliver' }).click()
await page.getByRole('heading', { name: /File check/ }).waitFor()
await page.getByRole('heading', { name: /File check/ }).scrollIntoViewIfNeeded()
await take('deliver')
const link = await page.getByLabel('Link', { exact: true }).inputValue()
for (const place of ['board', 'queue', 'results', 'kit']) {
  await page.goto(`/${place}`)
  await take(place)
}
await page.getByRole('link', { name: 'Settings, artwork and feed check' }).click()
await page.getByRole('heading', { name: /Feed check/ }).waitFor()
const feed = await page.getByLabel('Feed', { exact: true }).inputValue()
await take('feed')
await page.goto(`${link}#t=20`)
await page.waitForTimeout(1000)
await take('watch')
await page.goto(`http://127.0.0.1:${port + 1}/learning`)
await page.getByRole('link', { name: 'Opening the desk' }).click()
await page.getByRole('link', { name: /in a frame: .*, as Marr/ }).click()
await page.frameLocator('iframe').getByRole('heading', { level: 1 }).waitFor()
await take('outside-learning')
await page.goto(`http://127.0.0.1:${port + 1}/podcasts`)
await page.getByLabel('Address of the feed').fill(feed)
await page.getByRole('button', { name: 'Subscribe' }).click()
await page.getByRole('button', { name: 'Refresh' }).click()
await take('outside-podcast')
await page.goto(`http://127.0.0.1:${port + 1}/mail`)
await take('outside-mailbox')
await browser.close()
