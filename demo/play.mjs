// Plays the released demo lesson through as three learners, in a running `./wexel up`, and keeps what the server has of their
// players' reports in play-throughs.json, from which the demo is seeded.
import { writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import launch from './chromium.json' with { type: 'json' }

const base = `http://127.0.0.1:${process.env.WEXEL_PORT ?? 5080}`
const learners = [
  { address: 'joss.reed@brackwater.example', stretches: [[0, 53]] },
  { address: 'ana.quill@brackwater.example', stretches: [[0, 21]] },
  {
    address: 'tam.brook@brackwater.example',
    stretches: [
      [0, 12],
      [34, 53],
    ],
  },
]
const browser = await chromium.launch(launch)
const played = await Promise.all(
  learners.map(async ({ address, stretches }) => {
    const page = await (await browser.newContext({ baseURL: base })).newPage()
    await page.goto('/sign-in?to=/channel')
    await page.getByLabel('Mail address').fill(address)
    await page.getByLabel('Password').fill('Ferry-2026')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByRole('link', { name: 'Opening the desk' }).click()
    await page.getByRole('heading', { level: 1, name: 'Opening the desk' }).waitFor()
    for (const [from, to] of stretches) {
      await page.evaluate((at) => {
        document.querySelector('video').currentTime = at
        return document.querySelector('video').play()
      }, from)
      await page.waitForFunction(
        (at) => {
          const v = document.querySelector('video')
          return v.ended || v.currentTime >= at
        },
        to,
        { timeout: 120_000 },
      )
      await page.evaluate(() => document.querySelector('video').pause())
      await page.waitForTimeout(1000)
    }
    const kept = await page.evaluate(async () => (await fetch(`${location.pathname}/progress?learner=-`)).json())
    return { learner: address, watched: kept.watched, position: kept.position }
  }),
)
await browser.close()
writeFileSync(join(dirname(fileURLToPath(import.meta.url)), 'play-throughs.json'), `${JSON.stringify(played, null, 2)}\n`)
