// Measures the learner's page on the demo's longest lesson, as somebody sees it in Chromium: prints lines of "what|value|budget", in milliseconds.
import { chromium } from '@playwright/test'
import launch from '../demo/chromium.json' with { type: 'json' }
import { signIn } from './client.mjs'
import { opened } from './picture.mjs'

const [port] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { cookie, ask } = await signIn(base)
const middle = (numbers) => numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)].toFixed(0)

/** The longest lesson, on a channel: it is released there where it does not stand yet. */
async function longest() {
  const lesson = (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons).sort((a, b) => b.length - a.length)[0]
  const channel = async () => (await ask('GET', `/api/lessons/${lesson.id}/releases`)).find((o) => o.kind === 'channel')
  const place = await channel()
  if (!place.release) await ask('POST', '/api/releases', { wishes: [{ lessonId: lesson.id, outletId: place.id, visibility: 'signedIn' }] })
  for (;;) {
    const { release, way } = await channel()
    if (release) return { length: lesson.length, link: release.link }
    if (way?.problem) throw new Error(way.problem.sentence)
    await new Promise((done) => setTimeout(done, 1000))
  }
}
const lesson = await longest()
const browser = await chromium.launch(launch)
const pictures = []
let page
for (let i = 0; i < 9; i++) {
  await page?.context().close()
  const one = await opened(browser, cookie, base, lesson.link)
  page = one.page
  pictures.push(one.picture)
}
const minutes = Math.round(lesson.length / 60_000)
console.log(`First picture after the page came, the longest lesson (${minutes} min), the middle of 9|${middle(pictures)}|300`)

// From a click in the contents to the frame of that section; in an order in which no two that follow each other stand side by side.
await page.evaluate(() => document.querySelector('video').play())
await page.waitForTimeout(2000)
const links = await page.locator('.contents a').count()
const jumps = []
for (let i = 0; i < 3 * links; i++) {
  const n = (i * 5) % links
  jumps.push(
    await page.evaluate(
      (which) =>
        new Promise((shown) => {
          const video = document.querySelector('video')
          const asked = performance.now()
          // A frame from before the jump may still come; the one that counts lies where the jump led.
          const look = (now, { mediaTime }) => (Math.abs(mediaTime - video.currentTime) < 1 ? shown(now - asked) : video.requestVideoFrameCallback(look))
          video.addEventListener('seeking', () => video.requestVideoFrameCallback(look), { once: true })
          document.querySelectorAll('.contents a')[which].click()
        }),
      n,
    ),
  )
  await page.waitForTimeout(150)
}
console.log(`From a click in its contents to the new picture, the middle of ${jumps.length}|${middle(jumps)}|150`)

// A channel's front page, from the address to lessons that can be read.
const fronts = []
for (let i = 0; i < 9; i++) {
  const begun = performance.now()
  await page.goto(`${base}/channel`)
  await page.locator('a[href^="/watch/"]').first().waitFor()
  fronts.push(performance.now() - begun)
}
console.log(`The learners’ start page, from its address to its lessons, the middle of 9|${middle(fronts)}|300`)
await browser.close()
