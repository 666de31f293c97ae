// Plays released demo lessons through as learners, in a running `./wexel up`, answers what they ask, and keeps what the players reported in
// play-throughs.json, from which the demo is seeded.
import { writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import launch from './chromium.json' with { type: 'json' }

const base = `http://127.0.0.1:${process.env.WEXEL_PORT ?? 5080}`
const end = 600
const vehicle = 'Selling a vehicle crossing'
const order = ['Say the departure time aloud', 'Check the registration with the driver', 'Read out the price']
/** What is answered in the lesson on vehicles: values, numbers, an order. */
const answers = (first, length, camper, ordered = order) => ({ first, length, camper, ordered })
/** What is said of it: a step of the scale, an option, words. */
const says = (step, option, words = '') => ({ step, option, words })
/** Who plays what, from where to where in seconds; then what they answer, and what they say of it. */
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
  ['dag.hollis', 'The loading list', [[0, end]]],
  ['joss.reed', 'When we are late', [[0, 24]]],
  ['joss.reed', vehicle, [[0, end]], answers('b', '9.8', 'b'), says('5', 'o2', 'The trailers could be a lesson of their own.')],
  [
    'ana.quill',
    vehicle,
    [
      [0, 262],
      [222, end],
    ],
    answers('b', '9,8', 'a'),
    says('4', 'o2'),
  ],
  [
    'tam.brook',
    vehicle,
    [
      [0, 266],
      [212, 330],
    ],
    answers('c', '9.8 m', 'a'),
  ],
  ['nell.howe', vehicle, [[0, end]], answers('a', '10', 'a', [order[1], order[0], order[2]]), says('3', 'o3', 'Twelve metres went by too fast.')],
  [
    'olu.marsh',
    vehicle,
    [
      [0, 270],
      [224, end],
    ],
    answers('b', '9.8', 'b'),
    says('5', 'o2', 'Please show the left drawer with the paper roll.'),
  ],
  ['kit.amory', vehicle, [[0, 322]], answers('b', '5.2', 'a')],
  ['sib.lund', vehicle, [[0, end]], answers('c', '9.8', 'a'), says('4', 'o1', 'The weather notice comes late.')],
]

/** Does what stands over the picture; whether something did. */
async function answer(page, given, said) {
  const asked = page.locator('.ask')
  if ((await asked.count()) === 0) return
  const kind = /ask-(\w+)/.exec((await asked.getAttribute('class')) ?? '')?.[1]
  if (kind === 'wait') await page.locator('.area-wait').click()
  else if (kind === 'survey') {
    if (!said) return asked.getByRole('button', { name: 'Not now' }).click()
    await asked.locator(`input[value="${said.step}"]`).check()
    await asked.locator(`input[value="${said.option}"]`).check()
    if (said.words) await asked.locator('textarea').fill(said.words)
    await asked.getByRole('button', { name: 'Send' }).click()
    await asked.getByRole('button', { name: 'Close' }).click()
  } else {
    if (kind === 'one') await asked.locator(`input[value="${(await asked.getByText('15:20').count()) > 0 ? given.first : given.camper}"]`).check()
    if (kind === 'number') await asked.locator('input').first().fill(given.length)
    if (kind === 'order')
      for (const [to, line] of given.ordered.entries())
        while ((await asked.locator('.order li span').allTextContents()).indexOf(line) > to) await asked.getByRole('button', { name: `${line}: up` }).click()
    await asked.getByRole('button', { name: 'Answer' }).click()
    await asked.getByRole('button', { name: 'Go on' }).click()
  }
}

async function playOn(page, [from, to], given, said) {
  await page.evaluate(
    ([at, speed]) => {
      const video = document.querySelector('video')
      video.currentTime = at
      video.playbackRate = speed
      return video.play()
    },
    [from, given ? 2 : 1],
  )
  for (;;) {
    await page.waitForTimeout(300)
    await answer(page, given, said)
    const { time, ended, paused } = await page.evaluate(() => {
      const { currentTime: time, ended, paused } = document.querySelector('video')
      return { time, ended, paused }
    })
    if (ended && (await page.locator('.ask').count()) > 0) continue
    if (ended || time >= to) return
    if (paused && (await page.locator('.ask').count()) === 0) await page.evaluate(() => document.querySelector('video').play())
  }
}

const browser = await chromium.launch(launch)
const played = await Promise.all(
  plays.map(async ([name, lesson, stretches, given, said]) => {
    const learner = `${name}@brackwater.example`
    const page = await (await browser.newContext({ baseURL: base })).newPage()
    // What a report says is a blob, which nobody outside the page can read.
    await page.addInitScript(() => {
      const send = window.fetch
      window.fetch = async (to, init) => {
        const again = init?.body instanceof Blob ? JSON.parse(await init.body.text()).again : undefined
        if (again?.length) window.wexelAgain = again
        return send(to, init)
      }
    })
    await page.goto(`/sign-in?to=/c/${lesson === 'The loading list' ? 'on-deck' : 'ticket-desk'}`)
    await page.getByLabel('Mail address').fill(learner)
    await page.getByLabel('Password').fill('Ferry-2026')
    await page.getByRole('button', { name: 'Sign in' }).click()
    // Lists have its short title.
    await page
      .getByRole('link', { name: lesson === vehicle ? 'Vehicle crossing' : lesson })
      .first()
      .click()
    await page.getByRole('heading', { level: 1, name: lesson }).waitFor()
    const sent = { answers: [], said: undefined }
    page.on('request', (request) => {
      if (request.method() !== 'POST') return
      const body = JSON.parse(request.postData() ?? '{}')
      if (request.url().endsWith('/answers')) sent.answers.push({ question: body.question, answer: body.answer })
      if (request.url().endsWith('/survey')) sent.said = body.values
    })
    for (const stretch of stretches) {
      await playOn(page, stretch, given, said)
      await page.evaluate(() => document.querySelector('video').pause())
      await page.waitForTimeout(1000)
    }
    const kept = await page.evaluate(async () => (await fetch(`${location.pathname}/progress?learner=-`)).json())
    const again = await page.evaluate(() => window.wexelAgain)
    const { answers, said: told } = sent
    return { lesson, learner, watched: kept.watched, position: kept.position, again, answers: answers.length > 0 ? answers : undefined, said: told }
  }),
)
await browser.close()
writeFileSync(join(dirname(fileURLToPath(import.meta.url)), 'play-throughs.json'), `${JSON.stringify(played, null, 2)}\n`)
