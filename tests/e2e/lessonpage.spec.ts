import { expect, type Page, test } from '@playwright/test'
import { hasNoAccessibilityFaults, learner, signIn, trainer } from './help'

test.describe.configure({ timeout: 300_000 })

const at = (page: Page) => page.evaluate(() => document.querySelector('video')?.currentTime ?? -1)

/** The page of a lesson that stands in a channel. */
async function open(page: Page, title: string, hash = '') {
  await expect(async () => {
    await page.goto('/channel')
    await page.getByRole('link', { name: title }).first().waitFor({ timeout: 1000 })
  }).toPass({ timeout: 280_000 })
  const address = (await page.getByRole('link', { name: title }).first().getAttribute('href')) as string
  await page.goto(address + hash)
  return address
}

test('the transcript follows what is said, is searched, clicked and copied', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await signIn(page, learner)
  await open(page, 'Opening the desk')
  // The tabs by keyboard, as ARIA's pattern has them.
  await page.getByRole('tab', { name: 'Contents' }).focus()
  await page.keyboard.press('ArrowRight')
  const transcript = page.getByRole('tabpanel', { name: 'Transcript' })
  await expect(transcript.getByRole('heading', { name: /0:11 Signing in/ })).toBeVisible()
  await hasNoAccessibilityFaults(page)

  await page.getByLabel('Find in this lesson').fill('YELLOW')
  await expect(transcript.locator('mark')).toHaveText(['yellow', 'yellow'])
  await expect(transcript.getByText('1 of 2')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(transcript.locator('mark[aria-current]')).toHaveCount(1)
  await expect(transcript.getByText('2 of 2')).toBeVisible()
  await page.getByLabel('Find in this lesson').fill('zeppelin')
  await expect(transcript.getByText('Not said here')).toBeVisible()
  await page.getByLabel('Find in this lesson').fill('')

  await transcript.getByText('Now enter the float.').click()
  await expect.poll(() => at(page)).toBeGreaterThan(17)
  await expect(transcript.locator('.now')).toHaveText(/Now enter the float/)
  // What is said later is brought into sight; whoever scrolls by hand is left alone until they ask for it again.
  await page.setViewportSize({ width: 1280, height: 560 })
  const sight = () =>
    transcript.evaluate((t) => {
      const [box, now] = [t.querySelector('.said'), t.querySelector('.now')].map((e) => e?.getBoundingClientRect())
      return Boolean(box && now && now.top >= box.top - 1 && now.bottom <= box.bottom + 1)
    })
  await page.evaluate(() => Object.assign(document.querySelector('video') as HTMLVideoElement, { currentTime: 42 }))
  await expect(transcript.locator('.now')).toHaveText(/That is all/)
  await expect.poll(sight).toBe(true)
  await transcript.locator('.said').hover()
  await page.mouse.wheel(0, -2000)
  await expect(page.getByRole('button', { name: 'Follow what is said' })).toBeVisible()
  expect(await sight()).toBe(false)
  await page.getByRole('button', { name: 'Follow what is said' }).click()
  await expect.poll(sight).toBe(true)
  await page.getByRole('button', { name: 'Copy it all' }).click()
  await expect(transcript.getByText('Copied')).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(/^Opening the desk\n\n0:00 Before you start\n\nWelcome to the crossing desk\./)
})

test('captions are off, high or under the picture as the learner likes, and stay so on other pages', async ({ page }) => {
  await signIn(page, learner)
  await open(page, 'Opening the desk', '#t=18')
  const shown = () =>
    page.evaluate(() => {
      const track = [...(document.querySelector('video')?.textTracks ?? [])].find((t) => t.kind === 'captions')
      return [track?.mode, (track?.activeCues?.[0] as VTTCue | undefined)?.line]
    })
  await expect.poll(shown).toEqual(['showing', 'auto'])
  await page.getByText('More', { exact: true }).click()
  await page.getByLabel('and stand').selectOption('high on the picture')
  await expect.poll(shown).toEqual(['showing', 0])
  await page.getByLabel('and stand').selectOption('under the picture')
  await page.getByLabel('Captions are').selectOption('largest')
  const under = page.locator('.under')
  await expect(under).toHaveText(/Now enter the float/)
  await expect(under).toHaveCSS('font-size', '34px')
  await page.reload()
  await expect(under).toHaveText(/Now enter the float/)
  await page.getByLabel('Captions', { exact: true }).selectOption('No captions')
  await expect(under).toBeHidden()
  await page.reload()
  await expect(page.getByLabel('Captions', { exact: true })).toHaveValue('-1')
  await page.keyboard.press('c')
  await expect(under).toBeVisible()

  await page.getByText('More', { exact: true }).click()
  const width = () => page.locator('.stage').evaluate((s) => s.clientWidth)
  const before = await width()
  await page.getByRole('button', { name: 'As wide as the window' }).click()
  expect(await width()).toBeGreaterThan(before + 100)
  await page.getByRole('button', { name: 'Contents beside it again' }).click()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'On 10 s' }).click()
  await expect.poll(() => at(page)).toBeCloseTo(28, 0)
  await page.keyboard.press('b')
  await expect.poll(() => at(page)).toBeCloseTo(18, 0)
  await page.keyboard.press('+')
  await expect(page.getByLabel('Speed')).toHaveValue('1.25')
})

test('a note stands in the trainer’s sheet where it was left until it is answered, and the learner reads the answer', async ({ page, browser }) => {
  await signIn(page, learner)
  const address = await open(page, 'Opening the desk', '#t=20')
  await expect.poll(() => at(page)).toBeCloseTo(20, 0)
  await page.getByRole('button', { name: 'Something is wrong at 0:20' }).click()
  await page.getByLabel('I do not understand this').check()
  await page.getByLabel(/In your words/).fill('Which sheet <is> it?')
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Send the note' }).click()
  await expect(page.getByText('Sent to', { exact: false })).toBeVisible()
  await expect(page.getByText('Not answered yet.')).toBeVisible()

  const desk = await (await browser.newContext()).newPage()
  await signIn(desk, trainer)
  await desk.getByRole('link', { name: 'Opening the desk' }).first().click()
  await desk.getByRole('link', { name: 'Mark up' }).click()
  const note = desk.locator('[data-note]').filter({ hasText: 'Which sheet <is> it?' })
  await expect(note).toContainText('Not understood')
  await expect(note).toContainText('Joss Reed')
  await hasNoAccessibilityFaults(desk)
  await note.getByRole('button', { name: 'Answer' }).click()
  await note.getByRole('button', { name: 'Send the answer' }).click()
  await expect(note).toContainText('Write the answer first')
  await note.getByLabel('Answer to Joss Reed').fill('The yellow one, in the drawer.')
  await note.getByRole('button', { name: 'Send the answer' }).click()
  await expect(note).toHaveCount(0)

  await page.goto(`${address}#t=5`)
  await page.reload()
  await page.getByRole('button', { name: /Something is wrong/ }).click()
  await expect(page.getByText('Answer: The yellow one, in the drawer.')).toBeVisible()
  await page.locator('.notes').getByRole('link', { name: '0:20' }).first().click()
  await expect.poll(() => at(page)).toBeGreaterThan(19.5)
})

test('inside another page contents and transcript open over the picture, and the keys work', async ({ page }) => {
  await signIn(page, learner)
  const address = await open(page, 'Opening the desk')
  await page.setViewportSize({ width: 480, height: 330 })
  await page.goto(address.replace('/watch/', '/embed/'))
  await expect(page.getByRole('tab')).toHaveCount(0)
  await page.getByRole('button', { name: 'Contents' }).click()
  await page.getByRole('link', { name: /Signing in/ }).click()
  await expect.poll(() => at(page)).toBeGreaterThan(11)
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Close contents' }).click()
  await expect(page.getByRole('tab')).toHaveCount(0)
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(480)
})

test('without scripts there are title, description, contents with links, and the plain video with captions', async ({ page, browser }) => {
  await signIn(page, learner)
  const address = await open(page, 'Opening the desk')
  const plain = await (await browser.newContext({ javaScriptEnabled: false, storageState: await page.context().storageState() })).newPage()
  await plain.goto(address)
  await expect(plain.getByRole('heading', { level: 1, name: 'Opening the desk' })).toBeVisible()
  await expect(plain.locator('[role=main] p').first()).toHaveText(/^Signing in, entering the float/)
  await expect(plain.getByRole('link', { name: '0:11' })).toHaveAttribute('href', /video\.mp4#t=1\d(\.\d+)?$/)
  const track = await plain.locator('track').getAttribute('src')
  expect((await (await plain.request.get(track as string)).text()).startsWith('WEBVTT')).toBe(true)
})

test('on paper there are contents and transcript and no player, and nothing is cut off at twice the size of text', async ({ page }) => {
  await signIn(page, learner)
  await open(page, 'Opening the desk')
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('heading', { name: 'Contents', exact: true })).toBeVisible()
  await expect(page.getByText('Welcome to the crossing desk.')).toBeVisible()
  await expect(page.locator('.stage')).toBeHidden()
  await page.emulateMedia({ media: 'screen' })
  await page.setViewportSize({ width: 360, height: 740 })
  await page.addStyleTag({ content: 'html { font-size: 200%; } body, .bar * { font-size: 30px !important; }' })
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360)
})

test('by keyboard alone everything on the page is reached, named and seen to be reached', async ({ page }) => {
  await signIn(page, learner)
  await open(page, 'Opening the desk')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  // From the top of the page to its end by Tab: what is reached has a name, and a mark that it is there.
  const reached: string[] = []
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
  for (let i = 0; i < 80; i++) {
    await page.keyboard.press('Tab')
    const one = await page.evaluate(() => {
      const on = document.activeElement
      if (!on || on === document.body) return null
      // What is reached may lie inside an element of the player's own.
      const within: Element[] = [on]
      for (let inner = on.shadowRoot?.activeElement; inner; inner = inner.shadowRoot?.activeElement) within.push(inner)
      const marked = within.some((e) => {
        const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(e)
        return (outlineStyle !== 'none' && Number.parseFloat(outlineWidth) > 0) || boxShadow !== 'none'
      })
      const names = within.flatMap((e) => [
        e.getAttribute('aria-label'),
        ...[...((e as HTMLInputElement).labels ?? [])].map((l) => l.textContent),
        e.textContent,
        e.getAttribute('title'),
      ])
      const name = names.find((n) => n?.trim()) ?? ''
      return { name: name.trim().replaceAll(/\s+/g, ' '), marked, tag: on.tagName.toLowerCase() }
    })
    if (!one) break
    expect(one.name, one.tag).not.toBe('')
    expect(one.marked, `${one.tag} ${one.name}`).toBe(true)
    reached.push(one.name)
  }
  for (const wanted of [/^Play/, /Back 10 s/, /Captions/, /full screen/i, /Contents/, /0:11/])
    expect(
      reached.some((n) => wanted.test(n)),
      String(wanted),
    ).toBe(true)

  // Playing, jumping by the contents, and the transcript by the arrow keys of tabs.
  await page.getByRole('button', { name: 'Play', exact: true }).focus()
  await page.keyboard.press('Space')
  await expect.poll(() => page.evaluate(() => document.querySelector('video')?.paused)).toBe(false)
  await page.keyboard.press('Space')
  await page.locator('.contents a').nth(1).focus()
  await page.keyboard.press('Enter')
  await expect.poll(() => at(page)).toBeGreaterThan(9)
  await page.getByRole('tab', { name: 'Contents' }).focus()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('tab', { name: 'Transcript' })).toHaveAttribute('aria-selected', 'true')
})

test('with colours of the system what is chosen is still marked, and with less motion nothing moves', async ({ page }) => {
  await page.emulateMedia({ forcedColors: 'active', reducedMotion: 'reduce' })
  await signIn(page, learner)
  await open(page, 'Opening the desk')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  const chosen = page.getByRole('tab', { name: 'Contents' })
  const colour = (of: typeof chosen) => of.evaluate((e) => getComputedStyle(e).borderBottomColor)
  expect(await colour(chosen)).not.toBe(await colour(page.getByRole('tab', { name: 'Transcript' })))
  await page.locator('.contents a').nth(1).click()
  await expect(page.locator('.contents [aria-current]')).toHaveCSS('outline-style', 'solid')
  const moving = await page.evaluate(() =>
    [...document.querySelectorAll('*')]
      .filter((e) => {
        const { transitionDuration, animationName, scrollBehavior } = getComputedStyle(e)
        return transitionDuration.split(', ').some((d) => Number.parseFloat(d) > 0) || animationName !== 'none' || scrollBehavior === 'smooth'
      })
      .map((e) => e.tagName),
  )
  expect(moving).toEqual([])
  await hasNoAccessibilityFaults(page)
})

test('how much was seen is spoken by quarters, not by each per cent', async ({ page }) => {
  await signIn(page, learner)
  await open(page, 'Opening the desk')
  await page.evaluate(() => {
    const said: string[] = []
    Object.assign(window, { said })
    const spoken = document.querySelector('.spoken') as HTMLElement
    new MutationObserver(() => said.push(spoken.textContent ?? '')).observe(spoken, { childList: true, characterData: true, subtree: true })
    const video = document.querySelector('video') as HTMLVideoElement
    video.muted = true
    video.playbackRate = 2
    return video.play()
  })
  await page.waitForTimeout(6000)
  const said = await page.evaluate(() => (window as unknown as { said: string[] }).said)
  expect(said.length).toBeLessThanOrEqual(4)
})
