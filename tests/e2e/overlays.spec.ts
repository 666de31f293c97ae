import { execFileSync } from 'node:child_process'
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { expect, type Page, test } from '@playwright/test'
import { clip, folder, hasNoAccessibilityFaults, learner, release, rendered, saveInto, signIn } from './help'

const second = 1000
const span = (start: number, end: number) => ({ start: start * second, end: end * second, length: (end - start) * second })
const box = (x: number, y: number, width = 0.2, height = 0.2) => ({
  kind: 'rectangle',
  points: [
    { x, y },
    { x: x + width, y: y + height },
  ],
})
const survey = {
  title: 'The lesson',
  named: false,
  items: [
    { kind: 'scale', id: 'i1', text: 'It helps me at work.', steps: 5, low: 'not at all', high: 'very much' },
    {
      kind: 'choice',
      id: 'i2',
      text: 'I will use it',
      several: false,
      options: [
        { id: 'o1', text: 'today' },
        { id: 'o2', text: 'later' },
      ],
    },
    { kind: 'comment', id: 'i3', text: 'What was missing?' },
  ],
}
const over = {
  areas: [
    { id: 'a1', span: span(1, 4), shape: box(0.1, 0.1), text: 'The blue bar', action: { kind: 'text', says: 'It is <b>blue</b>.' } },
    {
      id: 'a2',
      span: span(5, 8),
      shape: {
        kind: 'polygon',
        points: [
          { x: 0.4, y: 0.4 },
          { x: 0.6, y: 0.4 },
          { x: 0.5, y: 0.7 },
        ],
      },
      text: 'The middle',
      action: { kind: 'wait', says: 'It is in the middle.' },
    },
    { id: 'a3', span: span(1, 4), shape: box(0.6, 0.1), text: 'On to the end', action: { kind: 'section', to: '' } },
    { id: 'a4', span: span(1, 4), shape: box(0.6, 0.5), text: 'The handbook', action: { kind: 'link', address: 'https://desk.brackwater.example/handbook' } },
  ],
  notes: [{ id: 'n1', span: span(2, 9), text: 'Watch the <i>bar</i>.', corner: 'bottomLeft', address: 'mailto:desk@brackwater.example' }],
  moveIns: [{ id: 'm1', span: span(2.5, 4.5), part: { x: 0, y: 0, width: 0.5, height: 0.5 }, ease: 200 }],
}

const asked = (page: Page) => page.getByRole('dialog')
const at = (page: Page) => page.evaluate(() => document.querySelector('video')?.currentTime ?? 0)
const play = (page: Page) => page.evaluate(() => document.querySelector('video')?.play())
const go = (page: Page, seconds: number) =>
  page.evaluate((to) => {
    const video = document.querySelector('video')
    if (video) video.currentTime = to
  }, seconds)
/** Where something stands on the picture, in shares of it. */
const placeOf = (page: Page, name: string) =>
  page.getByRole('button', { name }).evaluate((element) => {
    const [own, all] = [element.getBoundingClientRect(), (element.parentElement as Element).getBoundingClientRect()]
    return [(own.left - all.left) / all.width, (own.top - all.top) / all.height, own.width / all.width].map((n) => Math.round(n * 100) / 100)
  })

test('places to click and notes lie over the picture, go along where it moves in, and one waits; a survey ends it', async ({ page, browser }) => {
  test.setTimeout(300_000)
  await signIn(page)
  await rendered(page, clip('Over.mp4', 12), 'Over the picture', '0:00 Start\n0:10 End')
  const id = /lessons\/([^/]+)/.exec(page.url())?.[1]
  const { document } = await (await page.request.get(`/api/lessons/${id}`)).json()
  // One that leads to no section keeps the lesson back, and says so where it is.
  await saveInto(page, { ...over, survey })
  await page.goto(`/lessons/${id}/mark-up`)
  await expect(page.locator('[data-placed=area]').filter({ hasText: 'On to the end' })).toContainText('It leads to no section. Choose one.')
  await expect(page.locator('[data-placed=survey]')).toHaveCount(1)
  await hasNoAccessibilityFaults(page)
  const areas = over.areas.map((a) => (a.id === 'a3' ? { ...a, action: { kind: 'section', to: document.sections[1].id } } : a))
  await saveInto(page, { areas })
  await page.goto(`/lessons/${id}/deliver`)
  const channel = page.getByTestId('outlet-channel')
  await release(page, channel, 'The organisation')
  const link = await channel.getByLabel('Link', { exact: true }).inputValue()

  const watch = await (await browser.newContext()).newPage()
  await signIn(watch, learner)
  await watch.goto(link)
  await expect(watch.getByText('Say what you think of this lesson')).toBeVisible()
  await go(watch, 1.5)
  expect(await placeOf(watch, 'The blue bar')).toEqual([0.1, 0.1, 0.2])
  // Moved in on the upper left quarter, all of it is twice as large.
  await go(watch, 3.5)
  await expect.poll(() => placeOf(watch, 'The blue bar')).toEqual([0.2, 0.2, 0.4])
  await expect(watch.locator('.note')).toHaveText(/Watch the <i>bar<\/i>\./)
  await expect(watch.locator('.note a')).toHaveAttribute('rel', 'noopener noreferrer')
  await hasNoAccessibilityFaults(watch)
  await go(watch, 1.5)
  await expect(watch.getByRole('link', { name: 'The handbook' })).toHaveAttribute('target', '_blank')

  // By keys alone: opened, closed, and back where it was.
  await watch.getByRole('button', { name: 'The blue bar' }).focus()
  await watch.keyboard.press('Enter')
  await expect(asked(watch)).toContainText('It is <b>blue</b>.')
  await hasNoAccessibilityFaults(watch)
  await watch.keyboard.press('Escape')
  await expect(asked(watch)).toHaveCount(0)
  await expect(watch.getByRole('button', { name: 'The blue bar' })).toBeFocused()

  // The picture waits, a click elsewhere is answered, and the place lets it go on.
  await go(watch, 4.6)
  await play(watch)
  await expect(asked(watch)).toContainText('Your turn. Click on the picture: The middle')
  await expect.poll(() => at(watch)).toBeCloseTo(5, 1)
  await hasNoAccessibilityFaults(watch)
  const picture = await watch.locator('.elsewhere').boundingBox()
  if (!picture) throw new Error('There is no picture.')
  await watch.locator('.elsewhere').click({ position: { x: picture.width * 0.1, y: picture.height * 0.3 } })
  await expect(asked(watch)).toContainText('It is in the middle.')
  // Inside its box, and outside its outline.
  await watch.locator('.elsewhere').click({ position: { x: picture.width * 0.42, y: picture.height * 0.66 } })
  await expect(watch.locator('.area-wait')).toHaveClass(/found/)
  await watch.mouse.click(picture.x + picture.width * 0.5, picture.y + picture.height * 0.5)
  await expect(asked(watch)).toHaveCount(0)
  await expect.poll(() => at(watch)).toBeGreaterThan(5.3)

  // A section is led to, wherever it is.
  await go(watch, 1.5)
  await watch.getByRole('button', { name: 'On to the end' }).click()
  await expect.poll(() => at(watch)).toBeGreaterThan(9.9)

  // At the end they are asked what they think of it, once.
  await expect(asked(watch)).toContainText('It is anonymous', { timeout: 20_000 })
  await hasNoAccessibilityFaults(watch)
  await asked(watch).getByRole('button', { name: 'Send' }).click()
  await expect(asked(watch).getByRole('alert')).toHaveText('Nothing is filled in yet.')
  await asked(watch).getByRole('radio', { name: '5 very much' }).check()
  await asked(watch).getByLabel('What was missing?').fill('The <u>keys</u>.')
  await asked(watch).getByRole('button', { name: 'Send' }).click()
  await expect(asked(watch)).toContainText('Thank you. It was sent.')
  await asked(watch).getByRole('button', { name: 'Close' }).click()
  await watch.reload()
  await expect(watch.getByText('You said what you think of this lesson.')).toBeVisible()
  const again = await watch.request.post(`${link}/survey`, { data: { learner: 'k', values: { i1: ['1'] } } })
  expect([again.status(), (await again.json()).detail]).toEqual([422, 'You said what you think of this lesson before. It counts once.'])
})

test('in a web folder places and notes are there, and a survey that nobody would take is not', async ({ page, browser }) => {
  test.setTimeout(300_000)
  await signIn(page)
  await rendered(page, clip('OverFolder.mp4', 6), 'Over from disk', '0:00 Start')
  await saveInto(page, { ...over, moveIns: [], areas: over.areas.slice(0, 1), survey })
  await page.reload()
  const outlet = page.getByTestId('outlet-webServer')
  await outlet.getByRole('checkbox').first().check({ timeout: 90_000 })
  await expect(outlet).toContainText('Survey: not there.')
  await release(page, outlet)
  const downloading = page.waitForEvent('download')
  await outlet.getByRole('link', { name: /as a ZIP/ }).click()
  const zip = join(folder, 'over.zip')
  await (await downloading).saveAs(zip)
  execFileSync('unzip', ['-q', '-o', zip, '-d', join(folder, 'over')])
  const unpacked = join(folder, 'over', readdirSync(join(folder, 'over'))[0])
  expect(readdirSync(join(unpacked, 'player')).filter((name) => name.startsWith('wexel'))).toEqual([
    'wexel-contents.js',
    'wexel-overlays.css',
    'wexel-overlays.js',
    'wexel-player.css',
    'wexel-player.js',
  ])
  const watch = await (await browser.newContext({ viewport: { width: 390, height: 800 } })).newPage()
  await watch.goto(pathToFileURL(join(unpacked, 'index.html')).href)
  await go(watch, 2.5)
  await watch.getByRole('button', { name: 'The blue bar' }).click()
  await expect(asked(watch)).toContainText('It is <b>blue</b>.')
  await expect(watch.locator('.note')).toBeVisible()
})
