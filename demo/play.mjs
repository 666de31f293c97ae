// Plays released demo lessons through as learners, in a running `./wexel up`, and keeps what the server has of their players' reports
// in play-throughs.json, from which the demo is seeded.
import { writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import launch from './chromium.json' with { type: 'json' }

const base = `http://127.0.0.1:${process.env.WEXEL_PORT ?? 5080}`
const end = 600
/** Who plays what, from where to where in seconds. */
const plays = [
  ['joss.reed', 'Opening the desk', [[0, end]]],
  ['ana.quill', 'Opening the desk', [[0, 21]]],
  [
    'tam.brook',
    'Opening the desk',
    [
      [0, 12],
      [34, end],
    ],
  ],
  ['joss.reed', 'Reading the timetable', [[0, end]]],
  ['tam.brook', 'Reading the timetable', [[0, 33]]],
  ['ana.quill', 'The loading list', [[0, end]]],
  ['joss.reed', 'When we are late', [[0, 24]]],
]
const browser = await chromium.launch(launch)
const played = await Promise.all(
  plays.map(async ([name, lesson, stretches]) => {
    const learner = `${name}@brackwater.example`
    const page = await (await browser.newContext({ baseURL: base })).newPage()
    await page.goto('/sign-in?to=/channel')
    await page.getByLabel('Mail address').fill(learner)
    await page.getByLabel('Password').fill('Ferry-2026')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByRole('link', { name: lesson }).click()
    await page.getByRole('heading', { level: 1, name: lesson }).waitFor()
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
        { timeout: 240_000 },
      )
      await page.evaluate(() => document.querySelector('video').pause())
      await page.waitForTimeout(1000)
    }
    const kept = await page.evaluate(async () => (await fetch(`${location.pathname}/progress?learner=-`)).json())
    return { lesson, learner, watched: kept.watched, position: kept.position }
  }),
)
await browser.close()
writeFileSync(join(dirname(fileURLToPath(import.meta.url)), 'play-throughs.json'), `${JSON.stringify(played, null, 2)}\n`)
