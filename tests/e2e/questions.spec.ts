import { execFileSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { expect, type Page, test } from '@playwright/test'
import { clip, folder, hasNoAccessibilityFaults, learner, release, rendered, saveInto, signIn } from './help'

const second = 1000
const usual = { when: 'here', points: 1, must: false, tries: 1, penalty: 0, right: '', wrong: '', hints: [], again: null }
const rule = { capitals: false, spaces: false, slips: true }
const rectangle = (x: number, y: number) => ({
  kind: 'rectangle',
  points: [
    { x, y },
    { x: x + 0.2, y: y + 0.15 },
  ],
})

/** One of each kind, from 2 s on, a second apart. */
const each = [
  {
    text: 'A car with a trailer is 7.4 m long. Which lane?',
    must: true,
    tries: 2,
    penalty: 50,
    points: 2,
    right: 'So it is.',
    wrong: 'Count the tow bar.',
    hints: ['It is longer than 6 m.'],
    again: second,
    asks: {
      kind: 'one',
      shuffle: false,
      options: [
        { id: 'a', text: 'Lane A, up to 6 m', right: false, reply: 'It is too long for A.' },
        { id: 'b', text: 'Lane B, up to 8 m', right: true },
        { id: 'c', text: 'Lane C, lorries', right: false },
      ],
    },
  },
  {
    text: 'Which of them need a booking?',
    asks: {
      kind: 'several',
      shuffle: true,
      inPart: true,
      options: [
        { id: 'a', text: 'Cars', right: true },
        { id: 'b', text: 'Dogs', right: false },
        { id: 'c', text: 'Caravans', right: true },
      ],
    },
  },
  { text: 'The length is with the tow bar.', asks: { kind: 'truth', true: true } },
  { text: 'What do cars drive over?', asks: { kind: 'text', accepted: [{ text: 'gangway', perCent: 100 }], rule } },
  { text: 'How long may a car be in lane B?', asks: { kind: 'number', value: 8, rule: { within: 0, perCent: false, unit: 'm' } } },
  {
    text: 'In which order?',
    asks: {
      kind: 'order',
      inPart: false,
      items: [
        { id: 'a', text: 'Greet' },
        { id: 'b', text: 'Measure' },
        { id: 'c', text: 'Sell' },
      ],
    },
  },
  {
    text: 'What goes where?',
    asks: {
      kind: 'match',
      inPart: true,
      others: [],
      pairs: [
        { id: 'a', text: 'Car', with: 'x', withText: 'Lane A' },
        { id: 'b', text: 'Lorry', with: 'y', withText: 'Lane C' },
      ],
    },
  },
  { text: '', asks: { kind: 'gaps', text: 'A trailer up to [[8|eight]] m goes to lane [[B]].', rule, words: null, inPart: true } },
  {
    text: 'Where is the mark?',
    asks: {
      kind: 'place',
      areas: [
        { shape: rectangle(0.1, 0.15), text: 'The blue bar', right: true },
        { shape: rectangle(0.7, 0.7), text: 'The white page', right: false },
      ],
    },
  },
].map((question, i) => ({ ...usual, id: `q${i + 1}`, at: (2 + i) * second, ...question }))

const ask = (page: Page, questions: unknown[], goal = { rule: 'score', passPercent: 60 }) => saveInto(page, { questions, goal })

const asked = (page: Page) => page.getByRole('dialog')
const answer = (page: Page) => asked(page).getByRole('button', { name: 'Answer' })
const goOn = (page: Page) => asked(page).getByRole('button', { name: 'Go on' })
test('a lesson stops where it asks, is answered by keys alone, and the server says what is right', async ({ page, browser }) => {
  test.setTimeout(300_000)
  await signIn(page)
  await rendered(page, clip('Lanes.mp4', 14), 'Which lane', '0:00 Lanes\n0:06 More')
  await ask(page, each)
  await page.reload()
  const channel = page.getByTestId('outlet-channel')
  await release(page, channel, 'The organisation')
  const link = await channel.getByLabel('Link', { exact: true }).inputValue()

  const context = await browser.newContext()
  const watch = await context.newPage()
  await signIn(watch, learner)
  await watch.goto(link)
  // What is right is not on the page.
  expect(await watch.locator('#wexel-lesson').textContent()).not.toMatch(/"key":\s*\{|So it is/)
  await expect(watch.getByText('answered 0 of 9. It is done with 60 % of the points.')).toBeVisible()

  // Neither contents nor address lead past what must be answered.
  await watch.getByRole('link', { name: /More/ }).click()
  await expect(asked(watch)).toContainText('Question 1 of 9 · counts 2 points · 2 tries')
  await expect.poll(() => watch.evaluate(() => document.querySelector('video')?.currentTime)).toBeCloseTo(2, 1)
  await watch.evaluate(() => {
    location.hash = 't=9'
  })
  await expect.poll(() => watch.evaluate(() => document.querySelector('video')?.currentTime)).toBeCloseTo(2, 1)
  await expect(asked(watch).getByRole('heading')).toBeFocused()
  await expect(asked(watch).getByRole('button', { name: 'Not now' })).toHaveCount(0)
  await hasNoAccessibilityFaults(watch)

  // Wrong first, with a hint; the second try counts half.
  await asked(watch).getByRole('button', { name: 'A hint' }).click()
  await expect(asked(watch)).toContainText('It is longer than 6 m.')
  await answer(watch).click()
  await expect(asked(watch).getByRole('alert')).toHaveText('Choose one answer.')
  await asked(watch).getByRole('radio').first().focus()
  await watch.keyboard.press('Space')
  await watch.keyboard.press('Enter')
  await expect(asked(watch)).toContainText('Not right.')
  await expect(asked(watch)).toContainText('It is too long for A.')
  await expect(asked(watch)).toContainText('Count the tow bar.')
  await expect(goOn(watch)).toBeFocused()
  await hasNoAccessibilityFaults(watch)
  await asked(watch).getByRole('button', { name: 'Try again: 1 try left' }).click()
  await expect(asked(watch)).toContainText('second try')
  await asked(watch).getByLabel('Lane B, up to 8 m').check()
  await answer(watch).click()
  await expect(asked(watch)).toContainText('Right.')
  await expect(asked(watch)).toContainText('So it is.')
  await goOn(watch).click()
  await expect(asked(watch)).toHaveCount(0)
  await expect(watch.getByText('answered 1 of 9')).toBeVisible()

  // The rest as it plays; each kind by keys.
  const play = () => watch.evaluate(() => document.querySelector('video')?.play())
  const stands = async (text: string) => {
    await play()
    await expect(asked(watch)).toContainText(text, { timeout: 20_000 })
    await hasNoAccessibilityFaults(watch)
  }
  const right = async (verdict = '✓ Right.') => {
    await expect(asked(watch)).toContainText(verdict)
    await watch.keyboard.press('Enter')
    await expect(asked(watch)).toHaveCount(0)
  }
  await stands('Which of them need a booking?')
  await asked(watch).getByLabel('Cars').focus()
  await watch.keyboard.press('Space')
  await watch.keyboard.press('Enter')
  await right('Partly right: 50 %.')

  await stands('The length is with the tow bar.')
  await asked(watch).getByLabel('True').focus()
  await watch.keyboard.press('Space')
  await watch.keyboard.press('Enter')
  await right()

  await stands('What do cars drive over?')
  await asked(watch).getByLabel('Your answer').focus()
  await watch.keyboard.type('Gangwya')
  await watch.keyboard.press('Enter')
  await right()

  await stands('How long may a car be')
  await asked(watch).getByLabel('Your answer, in m').focus()
  await watch.keyboard.type('8,0 m')
  await watch.keyboard.press('Enter')
  await right()

  await stands('In which order?')
  for (const [line, to] of [
    ['Greet', 0],
    ['Measure', 1],
  ] as const) {
    for (;;) {
      const lines = await asked(watch).locator('.order li span').allTextContents()
      if (lines.indexOf(line) <= to) break
      await asked(watch)
        .getByRole('button', { name: `${line}: up` })
        .focus()
      await watch.keyboard.press('Enter')
    }
  }
  await answer(watch).focus()
  await watch.keyboard.press('Enter')
  await right()

  await stands('What goes where?')
  await asked(watch).getByLabel('Car').selectOption({ label: 'Lane A' })
  await asked(watch).getByLabel('Lorry').selectOption({ label: 'Lane C' })
  await answer(watch).click()
  await right()

  await stands('A trailer up to')
  await asked(watch).getByLabel('Gap 1 of 2').fill('eight')
  await asked(watch).getByLabel('Gap 2 of 2').fill('C')
  await answer(watch).click()
  await right('Partly right: 50 %.')

  await stands('Where is the mark?')
  const picture = watch.getByRole('application')
  await picture.focus()
  await watch.keyboard.press('ArrowLeft')
  await expect(asked(watch)).toContainText('The mark is 46 % across and 50 % down.')
  await asked(watch).getByText('Choose in words instead').click()
  await hasNoAccessibilityFaults(watch)
  const box = await picture.boundingBox()
  if (!box) throw new Error('There is no picture.')
  await picture.click({ position: { x: box.width * 0.2, y: box.height * 0.2 } })
  await answer(watch).click()
  await right()

  // 1 + ½ + 1 + 1 + 1 + 1 + 1 + ½ + 1 of 10 points.
  await expect(watch.getByText('You have completed this lesson, and passed: 8 of 10 points.')).toBeVisible()
  await watch.getByRole('tab', { name: 'Questions' }).click()
  await expect(watch.getByRole('tabpanel', { name: 'Questions' })).toContainText('8 of 10 points')
  await hasNoAccessibilityFaults(watch)

  // Answers are the learner's, not the browser's: another device knows them, and nothing is asked twice.
  const other = await (await browser.newContext()).newPage()
  await signIn(other, learner)
  await other.goto(link)
  await expect(other.getByText('You have completed this lesson, and passed: 8 of 10 points.')).toBeVisible()
  await other.evaluate(() => {
    location.hash = 't=3.5'
  })
  await other.evaluate(() => document.querySelector('video')?.play())
  await expect.poll(() => other.evaluate(() => document.querySelector('video')?.currentTime ?? 0)).toBeGreaterThan(6)
  await expect(asked(other)).toHaveCount(0)
})

test('answers that are forged, sent twice or too often count as they should', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  await rendered(page, clip('Forged.mp4', 9), 'Forged answers', '0:00 Lanes')
  await ask(page, each.slice(0, 1))
  await page.reload()
  const channel = page.getByTestId('outlet-channel')
  await release(page, channel, 'Whoever has the address')
  const link = await channel.getByLabel('Link', { exact: true }).inputValue()
  const send = async (event: string, values: string[], more = {}) => {
    const sent = await page.request.post(`${link}/answers`, { data: { learner: 'k', event: event.padEnd(32, '0'), question: 'q1', answer: values, ...more } })
    return { status: sent.status(), body: await sent.json() }
  }
  // A score that a browser claims is nothing that anybody reads.
  expect(await send('a1', ['c'], { share: 1, right: true })).toMatchObject({ status: 200, body: { counted: true, right: false, solution: null } })
  expect((await send('a1', ['b'])).body.known.answers).toMatchObject([{ tries: 1, share: 0 }])
  expect((await send('a2', ['b'])).body).toMatchObject({ right: true, known: { score: { raw: 1, max: 2 } } })
  expect((await send('a3', ['b'])).body).toMatchObject({ counted: false, says: [], known: { score: { raw: 1, max: 2 } } })
  expect((await send('a4', [], { question: 'q77' })).body.detail).toContain('is not asked any more')
  expect(
    (
      await send(
        'a5',
        Array.from({ length: 101 }, () => 'b'),
      )
    ).status,
  ).toBe(400)
  expect((await send('', ['b'], { event: 'no' })).status).toBe(400)
})

test('an embed asks too, and of two questions at one moment one after the other', async ({ page, browser }) => {
  test.setTimeout(240_000)
  await signIn(page)
  await rendered(page, clip('Embedded.mp4', 8), 'Questions inside another page', '0:00 Lanes')
  await ask(page, [
    { ...each[2], id: 'q1', at: 2 * second },
    { ...each[3], id: 'q2', at: 2 * second },
  ])
  await page.reload()
  const channel = page.getByTestId('outlet-channel')
  await release(page, channel, 'Whoever has the address')
  const link = await channel.getByLabel('Link', { exact: true }).inputValue()
  const embed = await (await browser.newContext({ viewport: { width: 640, height: 400 } })).newPage()
  await embed.goto(link.replace('/watch/', '/embed/'))
  const at = () => embed.evaluate(() => document.querySelector('video')?.currentTime ?? 0)
  await embed.evaluate(() => document.querySelector('video')?.play())
  await expect(asked(embed)).toContainText('Question 1 of 2')
  await asked(embed).getByLabel('True').check()
  await answer(embed).click()
  await goOn(embed).click()
  await expect(asked(embed)).toContainText('Question 2 of 2')
  expect(await at()).toBeCloseTo(2, 1)
  await hasNoAccessibilityFaults(embed)
  await asked(embed).getByLabel('Your answer').fill('gangway')
  await answer(embed).click()
  await expect(asked(embed)).toContainText('✓ Right.')
  await goOn(embed).click()
  await expect.poll(at).toBeGreaterThan(2.5)
  // Jumped back over, neither is asked again.
  await embed.evaluate(() => {
    const video = document.querySelector('video')
    if (video) video.currentTime = 1
  })
  await expect.poll(at).toBeGreaterThan(3)
  await expect(asked(embed)).toHaveCount(0)
})

test('a trainer writes questions in the sheet, tries them, brings in lists, and sees what came of them', async ({ page, browser }) => {
  test.setTimeout(300_000)
  await signIn(page)
  await rendered(page, clip('Written.mp4', 10), 'Written questions', '0:00 Lanes\n0:05 More')
  await page.getByRole('link', { name: 'Mark up', exact: true }).click()
  await page.getByRole('button', { name: /^Ask at/ }).click()
  const box = page.locator('[data-placed=question]')
  await expect(box.getByLabel('What is asked')).toBeFocused()
  await expect(box.getByRole('list', { name: 'What it lacks' })).toContainText('It asks nothing')
  await page.keyboard.type('Which lane?')
  await box.getByLabel('Answer 1', { exact: true }).fill('Lane A')
  await box.getByLabel('Answer 2', { exact: true }).fill('Lane B')
  await box.getByLabel('Answer 2 is right').check()
  await expect(box.getByLabel('Answer 1 is right')).not.toBeChecked()
  await box.getByLabel('Said when it is not').fill('Look again.')
  await expect(box.getByRole('list', { name: 'What it lacks' })).toHaveCount(0)
  await hasNoAccessibilityFaults(page)
  await expect(page.getByText(/^Saved/)).toContainText('question')

  // Tried there as learners see it.
  await box.getByRole('button', { name: /^Try the question/ }).click()
  const tried = page.getByTestId('trying')
  await tried.getByLabel('Lane A').check()
  await tried.getByRole('button', { name: 'Answer' }).click()
  await expect(tried).toContainText('Look again.')
  await expect(tried).toContainText('The right answer: Lane B')
  await page.getByRole('button', { name: 'Close', exact: true }).click()

  // Moved by keys, a second each.
  await page.getByRole('button', { name: 'Close the question' }).click()
  await page.getByRole('button', { name: /^Move the question at 0:00/ }).focus()
  await page.keyboard.press('ArrowDown')
  await page.getByRole('button', { name: /^Move the question at 0:01/ }).focus()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('button', { name: 'Change the question at 0:02' })).toBeVisible()

  // A list of another program: what can be read is taken, what cannot is named.
  await page.getByRole('button', { name: 'Bring in questions' }).click()
  const dialog = page.getByRole('dialog', { name: 'Bring in questions' })
  await dialog.getByLabel(/A list in GIFT/).fill('Cars drive over the gangway. {T}\n\nSay why. {}')
  await expect(dialog.getByRole('alert')).toHaveText('Line 3: “Say why.” is an essay, of which nobody can say at once whether it is right. It was left out.')
  await hasNoAccessibilityFaults(page)
  await dialog.getByRole('button', { name: 'Ask 1 question at the end' }).click()
  await expect(page.getByRole('region', { name: 'Questions' })).toContainText('2, 2 points')
  await page.getByRole('region', { name: 'Questions' }).getByLabel('Done when').selectOption({ label: 'every question was answered' })
  await expect(page.getByText(/^Saved/)).toContainText('what it takes to be done')

  // Kept for reuse with a tag, and asked once more; of two with the same tag each learner gets one.
  await page.getByRole('button', { name: 'Change the question at 0:02' }).click()
  await page.getByLabel('Tags, with commas between').fill('Lanes')
  await page.getByLabel('Tags, with commas between').press('Enter')
  await page.getByRole('button', { name: 'Close the question' }).click()
  await page.getByRole('button', { name: 'Keep the question at 0:02 in the pool' }).click()
  await expect(page.getByText('It is in the pool.')).toBeVisible()
  await page.getByRole('button', { name: 'From the pool' }).click()
  const pool = page.getByRole('dialog', { name: 'Questions from the pool' })
  await pool.getByLabel('Tag').selectOption('lanes')
  await pool.getByRole('checkbox', { name: /Which lane/ }).check()
  await hasNoAccessibilityFaults(page)
  await pool.getByRole('button', { name: /^Ask 1 question at/ }).click()
  await expect(page.getByRole('region', { name: 'Questions' })).toContainText('3, 3 points')
  await page.getByRole('list', { name: 'Drawn by tag' }).getByLabel('each learner gets').selectOption({ label: '1 of 2' })
  await expect(page.getByText(/^Saved/)).toContainText('how many questions are drawn')
  await page.getByRole('list', { name: 'Drawn by tag' }).getByLabel('each learner gets').selectOption({ label: 'all 2' })
  await box
    .filter({ hasText: 'Which lane?' })
    .last()
    .getByRole('button', { name: /^Delete the question/ })
    .click()
  await expect(page.getByRole('region', { name: 'Questions' })).toContainText('2, 2 points')
  await expect(page.getByText(/^Saved/)).toContainText('removed')

  // As QTI, and back.
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'QTI 3.0' }).click()
  const path = join(folder, 'questions.zip')
  await (await download).saveAs(path)
  await page.getByRole('button', { name: 'Bring in questions' }).click()
  await page.getByLabel('Choose a list of questions').setInputFiles(path)
  await expect(dialog.getByRole('button', { name: 'Ask 2 questions at the end' })).toBeVisible()
  await page.keyboard.press('Escape')

  // Released, and answered by seven people, of whom most miss the first.
  await page.getByRole('link', { name: 'Deliver' }).click()
  const channel = page.getByTestId('outlet-channel')
  await release(page, channel, 'Whoever has the address')
  const link = await channel.getByLabel('Link', { exact: true }).inputValue()
  const first = (await (await page.request.get(`${link.replace('/watch/', '/embed/')}`)).text()).match(
    /"questions":\[\{"id":"([^"]+)".*?"options":\[\{"id":"([^"]+)".*?\},\{"id":"([^"]+)"/,
  )
  if (!first) throw new Error('The page asks nothing.')
  const stranger = await (await browser.newContext()).newPage()
  for (let i = 0; i < 7; i++)
    await stranger.request.post(`${link}/answers`, {
      data: { learner: `learner ${i}`, event: String(i).padEnd(32, '0'), question: first[1], answer: [i < 5 ? first[2] : first[3]] },
    })
  await page.goto('/results')
  await hasNoAccessibilityFaults(page)
  await page.getByRole('link', { name: 'Written questions' }).click()
  const results = page.getByRole('region', { name: 'Questions of “Written questions”' })
  await expect(results).toContainText('Most missed this: 29 % right of 7 · most took “Lane A”')
  await hasNoAccessibilityFaults(page)
  // One press leads to the moment in the sheet, which says it too.
  await results.getByRole('link', { name: '0:02' }).click()
  await expect(page.locator('[data-placed=question]').first()).toContainText('29 % right of 7')
})

test('in a web folder the page judges by itself: answers stay over a reload, and the result can be saved', async ({ page, browser }) => {
  test.setTimeout(300_000)
  await signIn(page)
  await rendered(page, clip('Folder.mp4', 8), 'Questions from disk', '0:00 Lanes')
  await ask(page, [each[0], { ...each[3], when: 'lessonEnd' }])
  await page.reload()
  const outlet = page.getByTestId('outlet-webServer')
  await outlet.getByRole('checkbox').first().check({ timeout: 90_000 })
  await expect(outlet).toContainText('They are judged by the page, which holds what is right')
  await release(page, outlet)
  const downloading = page.waitForEvent('download')
  await outlet.getByRole('link', { name: /as a ZIP/ }).click()
  const zip = join(folder, 'web.zip')
  await (await downloading).saveAs(zip)
  execFileSync('unzip', ['-q', '-o', zip, '-d', join(folder, 'web')])
  const unpacked = join(folder, 'web', readdirSync(join(folder, 'web'))[0])
  expect(readdirSync(join(unpacked, 'player')).filter((name) => name.startsWith('wexel'))).toEqual([
    'wexel-contents.js',
    'wexel-player.css',
    'wexel-player.js',
    'wexel-questions.css',
    'wexel-questions.js',
  ])

  const learnerPage = await (await browser.newContext()).newPage()
  await learnerPage.goto(pathToFileURL(join(unpacked, 'index.html')).href)
  await learnerPage.evaluate(() => document.querySelector('video')?.play())
  await expect(asked(learnerPage)).toContainText('Which lane?')
  await asked(learnerPage).getByLabel('Lane A, up to 6 m').check()
  await answer(learnerPage).click()
  await expect(asked(learnerPage)).toContainText('It is too long for A.')
  // Answered once it may be gone on from; the second try is still there after a reload.
  await goOn(learnerPage).click()
  await expect(asked(learnerPage)).toContainText('What do cars drive over?', { timeout: 20_000 })
  await asked(learnerPage).getByLabel('Your answer').fill('gangway')
  await answer(learnerPage).click()
  await expect(asked(learnerPage)).toContainText('✓ Right.')
  await learnerPage.reload()
  await expect(learnerPage.getByText('answered 2 of 2')).toBeVisible()
  await learnerPage.getByRole('tab', { name: 'Questions' }).click()
  await expect(learnerPage.getByRole('tabpanel', { name: 'Questions' })).toContainText('not right, can be tried again')
  const saving = learnerPage.waitForEvent('download')
  await learnerPage.getByRole('button', { name: 'Save the result' }).click()
  const result = join(folder, 'result.html')
  await (await saving).saveAs(result)
  expect(readFileSync(result, 'utf8')).toContain('Your answer: gangway (right, 1 of 1 points)')
  await learnerPage.getByRole('button', { name: /Which lane/ }).click()
  await asked(learnerPage).getByLabel('Lane B, up to 8 m').check()
  await answer(learnerPage).click()
  await goOn(learnerPage).click()
  await expect(learnerPage.getByText('2 of 3 points').first()).toBeVisible()
})
