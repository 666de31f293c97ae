import { execFileSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { join } from 'node:path'
import AxeBuilder from '@axe-core/playwright'
import { expect, type Locator, type Page } from '@playwright/test'

export const trainer = 'mara.tarn@brackwater.example'
export const learner = 'joss.reed@brackwater.example'
/** A learner who has not watched anything yet. */
export const newcomer = 'nell.howe@brackwater.example'
export const folder = mkdtempSync(join(process.env.WEXEL_E2E_DATA as string, 'clips-'))

export async function signIn(page: Page, who = trainer) {
  await page.goto('/sign-in')
  await page.getByLabel('Mail address').fill(who)
  await page.getByLabel('Password').fill('Ferry-2026')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL((url) => url.pathname !== '/sign-in')
}

/** A short recording: a page that changes, with a tone. */
export function clip(name: string, seconds: number, ...more: string[]): string {
  const path = join(folder, name)
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    `color=c=white:s=640x360:r=30:d=${seconds},drawbox=x=60:y=60:w=120:h=40:c=navy:t=fill:enable='gte(t,${seconds / 2})'`,
    '-f',
    'lavfi',
    '-i',
    `sine=f=330:d=${seconds}`,
    '-pix_fmt',
    'yuv420p',
    '-preset',
    'ultrafast',
    '-shortest',
    // Recordings of the same bytes are one recording: two of one length are told apart by their names.
    '-metadata',
    `comment=${name}`,
    ...more,
    path,
  ])
  return path
}

/** A raw recording: words from 3 s to 5 s, 8 s to 10 s and 19 s to 21 s over faint noise; nothing changes but at 4 s. */
export function rawTalk(name: string, pitch = 300): string {
  const path = join(folder, name)
  const page = "color=c=white:s=640x360:r=30:d=24,drawbox=x=60:y=60:w=120:h=40:c=navy:t=fill:enable='gte(t,4)'"
  const words = `aevalsrc=0.0004*(random(0)-0.5)+0.2*sin(2*PI*${pitch}*t)*(between(t\\,3\\,5)+between(t\\,8\\,10)+between(t\\,19\\,21)):s=48000:d=24`
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    page,
    '-f',
    'lavfi',
    '-i',
    words,
    '-pix_fmt',
    'yuv420p',
    '-preset',
    'ultrafast',
    '-g',
    '30',
    path,
  ])
  return path
}

export async function hasNoAccessibilityFaults(page: Page) {
  // A page that has just been asked for has no heading until it is there.
  await expect(page.locator('h1, [role=heading][aria-level="1"]').first()).toBeAttached()
  // What comes or goes is pale for a moment; for whoever wants no motion it never is.
  await page.emulateMedia({ reducedMotion: 'reduce' })
  const found = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']).analyze()
  await page.emulateMedia({ reducedMotion: null })
  expect(found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`)).toEqual([])
}

/** Says that there is no material of others in a lesson: asked once, where people outside the house can come. */
export async function saysNothingIsOfOthers(page: Page) {
  await page
    .getByRole('group', { name: /pictures, music or texts of others/ })
    .getByRole('radio', { name: 'none' })
    .first()
    .check()
}

/** Releases a lesson to one place: it is rendered where it is not, and the press is over when it is live. */
export async function release(page: Page, place: Locator, visibility?: 'Whoever has the address' | 'The organisation') {
  await place.getByRole('checkbox').first().check({ timeout: 90_000 })
  if (visibility) await place.getByLabel(/^Who may see it/).selectOption({ label: visibility })
  if (await page.getByText('Before people outside the house can come to it').isVisible()) await saysNothingIsOfOthers(page)
  await page.getByRole('button', { name: 'Release to 1 place' }).click()
  await expect(place.getByText('Live', { exact: true })).toBeVisible({ timeout: 120_000 })
}

/** Opens what only makes files, below the places: where those come in late, the line moves away under the press. */
export async function openFiles(page: Page) {
  const files = page.locator('details').filter({ hasText: 'Only make the files' })
  await expect(async () => {
    if ((await files.getAttribute('open')) === null) await files.locator('summary').first().click()
    await expect(files).toHaveAttribute('open', '', { timeout: 1000 })
  }).toPass({ timeout: 60_000 })
}

/** Brings a recording in, gives it a title and contents, and renders it; ends on the page where it is released. */
export async function rendered(page: Page, file: string, title: string, contents: string) {
  await page.getByLabel('Choose recordings').setInputFiles(file)
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await page.getByRole('button', { name: 'Close' }).click()
  await page.getByLabel('Title', { exact: true }).fill(title)
  await page.getByRole('link', { name: 'Mark up' }).click()
  await page.getByRole('button', { name: 'Bring in contents' }).click()
  await page.getByLabel(/A time and a title on each line/).fill(contents)
  await page.getByRole('button', { name: /Take \d+ sections?/ }).click()
  await page.getByRole('link', { name: 'Deliver' }).click()
  await openFiles(page)
  await page.getByRole('checkbox', { name: /Web, as recorded/ }).check({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await expect(page.getByRole('heading', { name: /File check .* everything is right/ })).toBeVisible({ timeout: 120_000 })
}

/** Changes parts of the lesson that stands on the page, as the desk does. */
export async function saveInto(page: Page, parts: object) {
  const id = /lessons\/([^/]+)/.exec(page.url())?.[1]
  const lesson = await (await page.request.get(`/api/lessons/${id}`)).json()
  const saved = await page.request.put(`/api/lessons/${id}/document`, {
    data: { basedOn: lesson.revision, document: { ...lesson.document, ...parts }, restoredFrom: null },
  })
  expect(saved.status(), await saved.text()).toBe(200)
}
