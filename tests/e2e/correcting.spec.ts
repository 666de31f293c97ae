import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { hasNoAccessibilityFaults, signIn } from './help'

test.describe.configure({ mode: 'serial', timeout: 150_000 })

/** The lesson that the tests go on with, of a recording in which somebody speaks. */
let lesson = ''
const recordings = join(import.meta.dirname, '..', '..', 'demo', 'recordings')

async function markUp(page: Page) {
  await signIn(page)
  await page.goto(`/lessons/${lesson}/mark-up`)
}

const cue = (page: Page, text: string | RegExp) => page.getByRole('button', { name: text })
const field = (page: Page) => page.getByRole('textbox', { name: /^Caption at/ })
/** What was changed is saved half a second after it is in the lesson. */
const saved = async (page: Page) => {
  await page.waitForTimeout(1000)
  await expect(page.getByText(/^Saved/)).toBeVisible({ timeout: 20_000 })
}

test('captions are corrected where they stand, by keyboard alone, and undone', async ({ page }) => {
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(join(recordings, 'desk opening 2026-11-03.mp4'))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  lesson = page.url().split('/').at(-2) ?? ''
  await page.goto(`/lessons/${lesson}/mark-up`)
  await page.getByLabel('Choose a caption file').setInputFiles(join(recordings, 'opening.en.vtt'))
  await expect(page.getByText(/opening\.en\.vtt: \d+ captions/)).toBeVisible()
  await expect(page.getByTestId('page')).toBeVisible({ timeout: 60_000 })
  await expect(page.getByText(/Looked through as far as|come while the recording is looked through/)).toBeHidden({ timeout: 60_000 })
  // Opened by keyboard, typed in, split at the cursor.
  await cue(page, /Correct the caption at 0:06.*float that was counted/).press('Enter')
  await expect(field(page)).toBeFocused()
  await expect(field(page)).toHaveValue('You need your name and the float that was counted last night.')
  await page.keyboard.press('End')
  await page.keyboard.type(' Count it')
  for (let i = 0; i < ' that was counted last night. Count it'.length; i++) await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Enter')
  await expect(field(page)).toHaveValue('that was counted last night. Count it')
  await expect(cue(page, /You need your name and the float$/)).toBeVisible()
  await hasNoAccessibilityFaults(page)
  // To the one before, and joined again.
  await page.keyboard.press('Alt+ArrowUp')
  await expect(field(page)).toHaveValue('You need your name and the float')
  await page.keyboard.press('Control+j')
  await expect(field(page)).toHaveValue('You need your name and the float\nthat was counted last night. Count it')
  // Its edges, by frame and by the playing position.
  const begins = page.getByRole('textbox', { name: 'This caption begins' })
  const before = await begins.inputValue()
  await page.keyboard.press('Alt+ArrowRight')
  await expect(begins).not.toHaveValue(before)
  await page.keyboard.press('Escape')
  await expect(field(page)).toBeHidden()
  await saved(page)
  await page.reload()
  await expect(cue(page, /Count it$/)).toBeVisible()
  // As everywhere: undo leads back, step by step.
  const asItWas = cue(page, /float that was counted last night\.$/)
  const isBack = () =>
    asItWas.waitFor({ timeout: 1500 }).then(
      () => true,
      () => false,
    )
  for (let i = 0; i < 12 && !(await isBack()); i++) await page.keyboard.press('Control+z')
  await expect(cue(page, /float that was counted last night\.$/)).toBeVisible()
  await saved(page)
})

test('words are found and written otherwise, all are shifted, and the rest stays', async ({ page }) => {
  await markUp(page)
  await page.getByRole('region', { name: 'Captions' }).getByText('Find and replace').click()
  await page.getByLabel('Find', { exact: true }).fill('float')
  await expect(page.getByText('2 places')).toBeVisible()
  await page.getByLabel('Write instead').fill('till money')
  await page.getByRole('button', { name: 'Replace all 2' }).click()
  await expect(cue(page, /your name and the till money that was counted/)).toBeVisible()
  await expect(page.getByText('Not there')).toBeVisible()
  await page.getByText('Shift all').click()
  await page.getByLabel('Seconds').fill('2')
  await page.getByRole('button', { name: 'Later' }).click()
  await expect(cue(page, /Correct the caption at 0:08.*till money/)).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(cue(page, /Correct the caption at 0:08.*till money/)).toBeVisible()
})

test('the draft that this machine made is corrected, becomes captions, and goes out only when somebody says so', async ({ page }) => {
  await markUp(page)
  await page.getByRole('button', { name: 'Remove the captions British English' }).click()
  const panel = page.getByRole('region', { name: 'Captions' })
  await expect(panel.getByText(/draft by this machine, \d+ % sure/)).toBeVisible({ timeout: 120_000 })
  await expect(panel.getByText('In the sheet.')).toBeVisible()
  const first = page.getByRole('button', { name: /^Correct the caption at/ }).first()
  await first.press('Enter')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Welcome aboard')
  await page.keyboard.press('Escape')
  await expect(panel.getByText('· draft · learners do not get it')).toBeVisible()
  await expect(panel.getByRole('button', { name: 'Show the draft' })).toBeVisible()
  await panel.getByRole('button', { name: 'It is corrected' }).click()
  await expect(panel.getByText('· corrected')).toBeVisible()
  await panel.getByRole('button', { name: 'Checked by me' }).click()
  await expect(panel.getByText(/checked by Mara Tarn/)).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(cue(page, /Correct the caption.*Welcome aboard$/)).toBeVisible()
})

test('what is to be looked at is mended or left by one click, and all of a kind at once', async ({ page }) => {
  await markUp(page)
  const panel = page.getByRole('region', { name: 'Captions' })
  const first = page.getByRole('button', { name: /^Correct the caption at/ }).first()
  await first.press('Enter')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('now i take the flaot that i counted, and it is one that nobody knows')
  await page.keyboard.press('Escape')
  await expect(page.getByText('“I” with a capital?')).toHaveCount(2)
  await expect(page.getByText('“flaot” is in no dictionary.')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'All 2', exact: true }).first().click()
  await expect(cue(page, /now I take the flaot that I counted/)).toBeVisible()
  await saved(page)
  await page.getByRole('button', { name: '“float”' }).click()
  await expect(cue(page, /I take the float/)).toBeVisible()
  await saved(page)
  await panel.getByRole('button', { name: /^Mend: 1 long line/ }).click()
  await expect(page.getByText(/characters; 42 are read/)).toBeHidden()
  const leave = page.getByRole('button', { name: /^Leave it/ })
  const left = (await leave.first().getAttribute('aria-label')) ?? ''
  const ofIt = page.getByRole('button', { name: left, exact: true })
  const many = await ofIt.count()
  await ofIt.first().click()
  await expect(ofIt).toHaveCount(many - 1)
  await saved(page)
  await page.reload()
  await expect(cue(page, /I take the float/)).toBeVisible()
  // Read by a reader of its own: the TTML that goes out (imsc, of the registry).
  const ttml = await page.evaluate(async () => {
    const link = document.querySelector<HTMLAnchorElement>('a[href$=".ttml"]')
    return link ? await (await fetch(link.href)).text() : ''
  })
  const reader = await page.context().newPage()
  await reader.addScriptTag({ path: join(import.meta.dirname, '..', '..', 'node_modules', 'imsc', 'dist', 'imsc.all.debug.js') })
  const read = await reader.evaluate((text) => {
    const errors: string[] = []
    const say = (message: string) => void errors.push(message)
    const { imsc } = globalThis as unknown as {
      imsc: { fromXML(text: string, told: Record<string, (message: string) => void>): { getMediaTimeEvents(): number[] } | null }
    }
    const document = imsc.fromXML(text, { info: () => undefined, warn: say, error: say, fatal: say })
    return { errors, events: document?.getMediaTimeEvents().length ?? 0 }
  }, ttml)
  expect(read.errors).toEqual([])
  expect(read.events).toBeGreaterThan(10)
})

test('the house says how it writes its words, and drafts are written so', async ({ page }) => {
  await signIn(page)
  await page.goto('/kit/words')
  await page.getByRole('button', { name: 'Add a word' }).click()
  await page.getByRole('textbox', { name: 'Written' }).fill('MV Tern')
  await page.getByRole('textbox', { name: /^Often heard as/ }).fill('turn, em vee tern')
  await page.getByRole('button', { name: 'Save the list' }).click()
  await expect(page.getByText('Kept. Drafts')).toBeVisible()
  await page.getByRole('button', { name: 'Add a word' }).click()
  await page.getByRole('textbox', { name: 'Written', exact: true }).fill('Turn')
  await page.getByRole('button', { name: 'Save the list' }).click()
  await expect(page.getByRole('alert')).toContainText('“turn” is given for')
  await hasNoAccessibilityFaults(page)
  await page.reload()
  await expect(page.getByRole('textbox', { name: 'Written: MV Tern' })).toHaveValue('MV Tern')
})
