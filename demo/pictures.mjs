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
// It is released, so that it opens where it is delivered.
await page.getByRole('link', { name: 'Mark up', exact: true }).click()
await page.getByRole('button', { name: 'Play', exact: true }).waitFor({ timeout: 180_000 })
// Only what is on the screen is drawn.
const second = page.getByRole('button', { name: /^Go to \d+:\d\d, section 2$/ })
while ((await second.count()) === 0) {
  await page.getByTestId('run-sheet').evaluate((sheet) => sheet.scrollBy(0, 300))
  await page.waitForTimeout(200)
}
await second.click()
await page.waitForTimeout(1500)
await take('mark-up')
await page.getByRole('link', { name: 'Bring in', exact: true }).click()
await take('bring-in')
await page.getByRole('link', { name: /^Tidy/ }).click()
// Suggestions wait; a stretch is cut, and one is selected.
await page.getByTestId('run-sheet').locator('[data-suggestion]').first().waitFor()
/** Where a row of the sheet lies, the first that is wholly to be seen being 0. */
const row = async (index) => {
  const sheet = await page.getByTestId('run-sheet').boundingBox()
  const rows = await Promise.all((await page.locator('[data-block]').all()).map((block) => block.boundingBox()))
  return rows.filter((r) => r.y >= sheet.y && r.y + r.height <= sheet.y + sheet.height)[index]
}
const drag = async (from, to) => {
  await page.mouse.move(from.x + 300, from.y + 10)
  await page.mouse.down()
  await page.mouse.move(to.x + 300, to.y - 4, { steps: 8 })
  await page.mouse.up()
}
const taken = page.getByTestId('run-sheet').getByRole('button', { name: 'Take', exact: true }).nth(1)
await taken.scrollIntoViewIfNeeded()
await page.waitForTimeout(500)
await taken.click()
await page.getByText(/revision \d+: .* cut$/).waitFor()
await drag(await row(0), await row(1))
await page.waitForTimeout(800)
await take('tidy')
await page.keyboard.press('Escape')
// What is hard to read, and a move-in that was proposed for it.
const hard = page.getByRole('region', { name: 'Hard to read' })
await hard.getByLabel('delivered in').selectOption('small-480p')
await hard
  .getByRole('button', { name: /^\d+:\d\d$/ })
  .first()
  .click({ timeout: 120_000 })
await page.waitForTimeout(1500)
await take('hard-to-read')
await hard
  .getByRole('button', { name: /^Move in ×/ })
  .first()
  .click()
await page.getByTestId('run-sheet').getByRole('button', { name: 'Change it' }).first().click()
await page.waitForTimeout(1500)
await page.getByRole('region', { name: 'Move-ins' }).evaluate((panel) => panel.scrollIntoView())
await take('move-in')
// The lesson stays as it was.
await page.getByRole('button', { name: 'Undo' }).click()
await page.getByRole('button', { name: 'Undo' }).click()
await page.goto('/')
await page.getByRole('link', { name: /Opening the desk/ }).click()
await page.getByRole('link', { name: 'Deliver' }).click()
await page.getByRole('heading', { name: /File check/ }).waitFor()
await page.getByRole('heading', { name: /File check/ }).scrollIntoViewIfNeeded()
await take('deliver')
await page.getByRole('link', { name: /Detail of text: look at/ }).click()
await page.getByAltText('The file at this moment').waitFor()
await take('compare')
await page.goBack()
await page.goto(page.url().replace('/deliver', '/try?left=web&right=small-480p'))
await page.getByAltText('The Small 480p at this moment').waitFor({ timeout: 60_000 })
await take('try')
await page.goto(page.url().replace(/\/try.*/, '/made'))
await page.getByTestId('made-file').first().waitFor()
await take('made')
await page.goBack()
await page.goBack()
for (const place of ['queue', 'account', 'kit']) {
  await page.goto(`/${place}`)
  await take(place)
}
await page.goto('/results')
await page.getByRole('link', { name: 'Selling a vehicle crossing' }).click()
await page.getByRole('region', { name: 'Learners' }).waitFor()
await take('results')
await page.goto('/board')
const cell = (row, column) => page.getByRole('row').nth(row).getByRole('gridcell').nth(column)
await cell(2, 0).click()
await cell(3, 2).click({ modifiers: ['Shift'] })
await page.getByRole('button', { name: /^Apply to/ }).waitFor()
await take('board')
await page.goto('/kit')
await page.getByRole('link', { name: 'Web 720p' }).first().click()
await page.getByText('Nothing speaks against it.').waitFor()
await take('profile')
await page.goto('/kit')
await page.getByRole('link', { name: 'Settings, artwork and feed check' }).click()
await page.getByRole('heading', { name: /Feed check/ }).waitFor()
await page.getByLabel('Feed', { exact: true }).waitFor()
await take('feed')
await page.goto('/c/ticket-desk')
await page.getByRole('link', { name: 'Vehicle crossing' }).first().click()
await page.waitForTimeout(1000)
// Where a question stops the picture.
await page.evaluate(() => {
  const video = document.querySelector('video')
  video.muted = true
  video.currentTime = 273
  video.play().catch(() => undefined)
})
while ((await page.locator('.ask').count()) === 0) await page.waitForTimeout(200)
await take('watch')
await page.goto('/channel')
await page.getByRole('navigation', { name: 'Channels' }).getByRole('link').nth(1).click()
await page.getByRole('navigation', { name: 'Order' }).waitFor()
await take('channel')
await browser.close()
