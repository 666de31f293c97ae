import { expect, type Page, test } from '@playwright/test'
import { clip, hasNoAccessibilityFaults, signIn } from './help'

async function broughtIn(page: Page, name: string, seconds: number): Promise<string> {
  await page.getByLabel('Choose recordings').setInputFiles(clip(name, seconds))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  return page.url().replace('/bring-in', '')
}

const cuts = (page: Page) => page.getByRole('region', { name: 'Cuts', exact: true })

async function cut(page: Page, from: string, to: string) {
  await page.getByRole('heading', { name: 'Selected stretch' }).click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('[')
  const stretch = page.getByRole('region', { name: 'Selected stretch' })
  await stretch.getByLabel('To', { exact: true }).fill(to)
  await stretch.getByLabel('To', { exact: true }).press('Enter')
  await stretch.getByLabel('From', { exact: true }).fill(from)
  await stretch.getByLabel('From', { exact: true }).press('Enter')
  await stretch.getByRole('button', { name: /^Cut / }).click()
}

test('what was done before the page was left is undone and done again, and any revision comes back', async ({ page }) => {
  test.setTimeout(120_000)
  await signIn(page)
  const lesson = await broughtIn(page, 'days.mp4', 9)
  await page.goto(`${lesson}/tidy`)
  await cut(page, '0:01', '0:02')
  await expect(page.locator('header')).toContainText('1.0 s cut')
  await cut(page, '0:04', '0:06')
  await expect(page.locator('header')).toContainText('2.0 s cut')
  await page.reload()
  await expect(cuts(page)).toContainText('2 stretches')
  await page.keyboard.press('Control+z')
  await expect(cuts(page)).toContainText('1 stretch,')
  await expect(page.locator('header')).toContainText('2.0 s restored')
  await page.reload()
  // Redo and undo go on where they were, as if the page had never been left.
  await expect(cuts(page)).toContainText('1 stretch,')
  await page.keyboard.press('Control+Shift+z')
  await expect(cuts(page)).toContainText('2 stretches')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(cuts(page)).toContainText('none yet')
  await expect(page.locator('header')).toContainText('Saved')
  await page.reload()
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(cuts(page)).toContainText('1 stretch,')

  await page.getByRole('button', { name: 'History' }).click()
  const history = page.getByRole('dialog', { name: 'History' })
  await expect(history.getByRole('listitem').last()).toContainText('brought in')
  await hasNoAccessibilityFaults(page)
  await history.getByRole('button', { name: 'Go back to revision 3' }).click()
  await expect(cuts(page)).toContainText('2 stretches')
})

test('more than a browser sends for a page that is gone is sent before it goes', async ({ page }) => {
  await signIn(page)
  const lesson = await broughtIn(page, 'long contents.mp4', 8.7)
  await page.goto(`${lesson}/mark-up`)
  await page.getByRole('button', { name: 'Bring in contents' }).click()
  // A section on every frame but the last ones, with a title as long as learning systems take: well over 64 KiB, which is the limit.
  const contents = Array.from({ length: 250 }, (_, i) => `0:0${(i / 30).toFixed(3)} ${`Section ${i} `.padEnd(190, 'of a very long lesson ')}end`)
  await page.getByLabel(/A time and a title on each line/).fill(contents.join('\n'))
  const sections = async () => (await (await page.request.get(`/api/lessons/${lesson.split('/').at(-1)}`)).json()).document.sections.length
  // The browser asks whether to leave; it is sent before anybody answers.
  const sent = new Promise<number>((resolve) => {
    page.on('dialog', async (leaving) => {
      await expect
        .poll(sections)
        .toBe(250)
        .catch(() => undefined)
      resolve(await sections())
      await leaving.accept()
    })
  })
  await page.getByRole('button', { name: /Take \d+ sections?/ }).click()
  // At once, before it is saved by itself.
  await page.goto('/')
  expect(await sent).toBe(250)
})

test('two people edit one lesson: the second sees the difference and nothing is overwritten', async ({ page, browser }) => {
  test.setTimeout(120_000)
  await signIn(page)
  const lesson = await broughtIn(page, 'together.mp4', 10)
  await page.goto(`${lesson}/tidy`)
  const other = await (await browser.newContext()).newPage()
  await signIn(other)
  await other.goto(`${lesson}/tidy`)
  const title = (p: Page) => p.getByLabel('Title', { exact: true })
  await expect(title(other)).toBeVisible()

  // With nothing unsaved, what the other saves shows by itself.
  await title(page).fill('Working together')
  await expect(title(other)).toHaveValue('Working together')

  // With something unsaved on both sides, the second is told and shown both.
  await other.route(
    '**/document',
    async (route) => {
      await cut(page, '0:01', '0:02')
      await expect(page.locator('header')).toContainText('1.0 s cut')
      await route.continue()
    },
    { times: 1 },
  )
  await title(other).fill('Working together well')
  const alert = other.getByRole('alert').filter({ hasText: 'Somebody else saved this lesson meanwhile.' })
  await expect(alert).toContainText('1.0 s cut')
  await expect(alert).toContainText('title')
  await hasNoAccessibilityFaults(other)
  await alert.getByRole('button', { name: 'Keep both' }).click()
  await expect(other.locator('header')).toContainText('Saved')
  await expect(cuts(other)).toContainText('1 stretch,')
  await expect(title(other)).toHaveValue('Working together well')
  await expect(title(page)).toHaveValue('Working together well')
  await other.context().close()
})

test('the order of a course is set with the keys and by dragging, and the numbers follow', async ({ page }) => {
  await signIn(page)
  // Each course has an order of its own.
  const course = page.locator('section', { has: page.getByRole('heading', { name: /^Ticket desk basics/ }) })
  const titles = () =>
    course
      .getByRole('row')
      .getByRole('link')
      .evaluateAll((links) => links.map((l) => l.textContent?.replace(/^\d+\s*/, '')))
  await expect.poll(async () => (await titles()).length).toBeGreaterThan(2)
  const before = await titles()
  const grip = page.getByRole('button', { name: `Move ${before[0]}` })
  await grip.focus()
  await page.keyboard.press(' ')
  await page.waitForTimeout(100)
  await page.keyboard.press('ArrowDown')
  await page.waitForTimeout(300)
  const kept = page.waitForResponse((answer) => answer.url().endsWith('/order'))
  await page.keyboard.press(' ')
  await expect.poll(titles).toEqual([before[1], before[0], ...before.slice(2)])
  await expect(page.getByText(`${before[0]} is lesson 2 of ${before.length}.`)).toBeAttached()
  await kept
  await page.reload()
  await expect.poll(titles).toEqual([before[1], before[0], ...before.slice(2)])
  await expect(course.getByRole('row').getByRole('link').first()).toHaveText(new RegExp(`^1\\s*${before[1]}`))
  await hasNoAccessibilityFaults(page)

  const [from, to] = [await page.getByRole('button', { name: `Move ${before[1]}` }).boundingBox(), await grip.boundingBox()]
  if (!from || !to) throw new Error('The lessons are not there.')
  await page.mouse.move(from.x + 8, from.y + 8)
  await page.mouse.down()
  await page.mouse.move(from.x + 8, from.y + 30, { steps: 5 })
  await page.mouse.move(to.x + 8, to.y + 20, { steps: 5 })
  await page.waitForTimeout(200)
  await page.mouse.up()
  await expect.poll(titles).toEqual(before)
})
