import { execFileSync } from 'node:child_process'
import { once } from 'node:events'
import { readFileSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { expect, test } from '@playwright/test'
import { createFile, MP4BoxBuffer } from 'mp4box'
import webvtt from 'webvtt-parser'
import { clip, folder, hasNoAccessibilityFaults, learner, openFiles, release, saysNothingIsOfOthers, signIn, trainer } from './help'
import { data, ports } from './playwright.config'

const outside = `http://127.0.0.1:${ports.outside}`

test('nothing of the desk shows before signing in, and a wrong password gets a sentence', async ({ page }) => {
  await page.goto('/queue')
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.getByLabel('Mail address').fill(trainer)
  await page.getByLabel('Password').fill('wrong')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toHaveText('That address and password do not go together. Check both and try again.')
})

test('a learner who signs in is not let into the desk', async ({ page }) => {
  await signIn(page, learner)
  expect(new URL(page.url()).pathname).toBe('/channel')
  await page.goto('/')
  await page.waitForURL('**/channel')
  await page.goto('/queue')
  await expect(page.getByRole('heading', { name: 'This side is for trainers' })).toBeVisible()
})

test('every place of the desk is without faults', async ({ page }) => {
  await signIn(page)
  await expect(page.getByRole('row').filter({ hasText: 'Closing the till' })).toBeVisible()
  await hasNoAccessibilityFaults(page)
  for (const place of ['Board', 'Queue', 'Results', 'Kit']) {
    await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: place }).click()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await page.waitForLoadState('networkidle')
    await hasNoAccessibilityFaults(page)
  }
})

test('the dark desk and the list of keys are without faults too', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' })
  await signIn(page)
  await hasNoAccessibilityFaults(page)
  await page.keyboard.press('?')
  const keys = page.getByRole('dialog', { name: 'Keys' })
  await expect(keys).toContainText('Set a section at the playing position')
  await hasNoAccessibilityFaults(page)
  // Signs alone can be switched off (WCAG 2.2, 2.1.4), and on again.
  const alone = keys.getByLabel(/Letters and signs work alone/)
  await alone.uncheck()
  await page.keyboard.press('Escape')
  await expect(keys).toBeHidden()
  await page.keyboard.press('?')
  await expect(keys).toBeHidden()
  await page.keyboard.press('F1')
  await expect(keys).toBeVisible()
  await alone.check()
  await page.keyboard.press('Escape')
  await expect(keys).toBeHidden()
  await page.keyboard.press('?')
  await expect(keys).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: /Opening the desk/ }).click()
  for (const stage of ['Bring in', 'Mark up', 'Deliver']) {
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click()
    await page.waitForLoadState('networkidle')
    await hasNoAccessibilityFaults(page)
  }
})

test('bad files are refused in a sentence, and the same bytes are recognised', async ({ page }) => {
  await signIn(page)
  writeFileSync(join(folder, `it's "bad" 🚢.mp4`), 'text, not video')
  await page.getByLabel('Choose recordings').setInputFiles(join(folder, `it's "bad" 🚢.mp4`))
  await expect(page.getByRole('alert').first()).toContainText(`“it's "bad" 🚢.mp4” is not a video file that can be read`)
  // Dropped anywhere, here on the page's heading.
  const dropped = await page.evaluateHandle(() => {
    const files = new DataTransfer()
    files.items.add(new File([], 'nothing.mkv'))
    return files
  })
  const heading = page.getByRole('heading', { name: 'Lessons', exact: true })
  await heading.dispatchEvent('dragover', { dataTransfer: dropped })
  await expect(page.getByText('Drop to bring it in')).toBeVisible()
  await heading.dispatchEvent('drop', { dataTransfer: dropped })
  await expect(page.getByText('Drop to bring it in')).toBeHidden()
  await expect(page.getByRole('alert').filter({ hasText: '“nothing.mkv”' })).toContainText('is empty')
  await page.getByLabel('Choose recordings').setInputFiles(join(data, 'demo/recordings/Untitled 7.mov'))
  await expect(page.getByText('These same bytes are here already.')).toBeVisible()
})

test('from a recording to a learner who completes it', async ({ page, browser }) => {
  test.setTimeout(600_000)
  await signIn(page)

  // Bring in.
  await page.getByLabel('Choose recordings').setInputFiles(clip('screen_recording 2026-11-05.mp4', 14))
  await page.waitForURL(/\/lessons\/.*\/bring-in/)
  await expect(page.getByText('640 × 360, H.264')).toBeVisible()
  await expect(page.getByText('30 frames/s, constant')).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).click()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('link', { name: 'Deliver' }).click()
  await expect(page.getByText('The lesson has no title yet').first()).toBeVisible()
  await page.getByLabel('Title', { exact: true }).fill('Fares <b>& fees</b>')

  // Mark up: a section at the playing position, by key and by button; paste; undo; captions.
  await page.getByRole('link', { name: 'Mark up' }).click()
  await expect(page.getByTestId('run-sheet').locator('img').first()).toBeVisible({ timeout: 90_000 })
  await page.getByRole('heading', { name: 'Contents' }).click()
  await page.keyboard.press('s')
  await page.getByLabel('Title of section 1').fill('Start')
  await page
    .getByRole('button', { name: /^Go to 0:07$/ })
    .first()
    .click()
  await expect(page.getByTestId('playing-time')).toContainText('0:07')
  await page.getByRole('button', { name: 'Set a section at 0:07' }).click()
  await page.getByLabel('Title of section 2').fill('The blue box')
  await page.getByRole('button', { name: 'Set in one level' }).click()
  await expect(page.getByLabel('Title of section 1.1')).toHaveValue('The blue box')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByLabel('Title of section 2')).toHaveValue('The blue box')
  await page.getByRole('button', { name: 'Redo' }).click()
  await page.getByLabel('Starts at').fill('0:08')
  await page.getByLabel('Starts at').press('Enter')
  await expect(page.getByRole('button', { name: 'Go to 0:08, section 1.1' })).toBeVisible()
  await hasNoAccessibilityFaults(page)

  await page.getByRole('button', { name: 'Bring in contents' }).click()
  await page.getByLabel(/A time and a title on each line/).fill('0:00 - Welcome\n[0:05]\tThe <i>white</i> page\n   0:07 The box\nno time\n9:00 too late')
  await expect(page.getByRole('alert')).toContainText('Line 4, “no time”: there is no time such as 1:05 at its start or end.')
  await expect(page.getByRole('alert')).toContainText('“too late” starts at 9:00, after the lesson’s end at 0:14.')
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Replace the contents by 3 sections' }).click()
  await expect(page.getByLabel('Title of section 2', { exact: true })).toHaveValue('The <i>white</i> page')

  writeFileSync(
    join(folder, 'words.srt'),
    Buffer.from('1\n00:00:01,000 --> 00:00:04,000\nGr\xfc\xdfe an Bord\n\n2\n00:00:06,000 --> 00:00:0x,000\nbad\n', 'latin1'),
  )
  await page.getByLabel('Choose a caption file').setInputFiles(join(folder, 'words.srt'))
  await expect(page.getByText('words.srt: 1 caption')).toBeVisible()
  await expect(page.getByText(/Line 6: .* is not a pair of times/)).toBeVisible()
  await page.getByRole('button', { name: 'Grüße an Bord' }).click()
  await expect(page.locator('aside').getByText('Grüße an Bord')).toBeVisible()
  await expect(page.getByText(/^Saved/)).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Title of section 2', { exact: true })).toHaveValue('The <i>white</i> page')

  // Deliver.
  await page.getByRole('link', { name: 'Deliver' }).click()
  await openFiles(page)
  await page.getByRole('checkbox', { name: /Web, as recorded/ }).check({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Queue' }).click()
  await expect(page.getByRole('row').filter({ hasText: 'Fares <b>& fees</b>' })).toContainText('Ready', { timeout: 90_000 })
  await hasNoAccessibilityFaults(page)
  await page.getByRole('link', { name: 'Fares <b>& fees</b>' }).click()
  await expect(page.getByRole('heading', { name: /File check .* everything is right/ })).toBeVisible()
  const mailbox = await page.context().newPage()
  await expect(async () => {
    await mailbox.goto(`${outside}/mail`)
    await expect(mailbox.getByRole('link', { name: 'Ready: Fares <b>& fees</b>' })).toBeVisible()
  }).toPass()
  await hasNoAccessibilityFaults(mailbox)

  // Release to both outlets.
  const channel = page.getByTestId('outlet-channel')
  await release(page, channel, 'The organisation')
  await channel.getByText('Embed code', { exact: true }).first().click()
  await expect(channel.getByText('Only signed-in people can play it.').first()).toBeVisible()
  // Before people outside can come to it for the first time it is asked, once, whether there is material of others in it.
  const who = channel.getByLabel(/^Who may see it/)
  const warning = channel.getByText('Only signed-in people can play it.')
  await who.selectOption({ label: 'Whoever has the address' })
  await saysNothingIsOfOthers(page)
  await page.getByRole('button', { name: 'Release to 1 place' }).click()
  await expect(warning).toHaveCount(0)
  // From then on who may see it changes at once: nothing is released again for it.
  await who.selectOption({ label: 'The organisation' })
  await expect(warning).toHaveCount(2)
  await who.selectOption({ label: 'Whoever has the address' })
  await expect(warning).toHaveCount(0)
  const link = await channel.getByLabel('Link', { exact: true }).inputValue()
  const embed = await channel.getByLabel('Embed code').inputValue()
  const host = page.getByTestId('outlet-webServer')
  // What Windows does not take in a name is left out of it.
  const own = 'Fares -b-& fees--b-'
  await release(page, host)
  const downloading = page.waitForEvent('download')
  await host.getByRole('link', { name: /Download the folder as a ZIP/ }).click()
  const zip = join(folder, 'lesson.zip')
  await (await downloading).saveAs(zip)
  await expect(host.getByText(`Unpack it on the web server and link ${own}/index.html.`)).toBeVisible()
  await hasNoAccessibilityFaults(page)

  // The learner, who has nothing but the link.
  const context = await browser.newContext()
  const watch = await context.newPage()
  const asked: string[] = []
  watch.on('request', (request) => asked.push(new URL(request.url()).host))
  await watch.goto(link)
  await expect(watch.getByRole('heading', { level: 1 })).toHaveText('Fares <b>& fees</b>')
  await hasNoAccessibilityFaults(watch)
  await watch.getByRole('link', { name: /The <i>white<\/i> page/ }).click()
  await expect.poll(() => watch.evaluate(() => document.querySelector('video')?.currentTime ?? 0)).toBeGreaterThanOrEqual(5)
  await expect(watch.getByRole('link', { name: /white/ })).toHaveAttribute('aria-current', 'true')
  // From the second section to the end is not nine tenths; the rest makes it complete.
  await expect.poll(() => watch.evaluate(() => document.querySelector('video')?.ended), { timeout: 30_000 }).toBe(true)
  await expect(watch.getByText('It is done at 90 %')).toBeVisible()
  await watch.evaluate(() => {
    const video = document.querySelector('video') as HTMLVideoElement
    video.currentTime = 0
    return video.play()
  })
  await expect(watch.getByText('You have completed this lesson.')).toBeVisible({ timeout: 30_000 })
  await watch.keyboard.press('Space')
  expect([...new Set(asked)]).toEqual([`127.0.0.1:${ports.server}`])

  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Results' }).click()
  await page.getByRole('main').getByRole('link', { name: 'Fares <b>& fees</b>' }).click()
  await expect(page.getByRole('region', { name: 'Learners' }).getByText('Complete', { exact: true })).toBeVisible()
  await hasNoAccessibilityFaults(page)

  // The embed code in another site's page.
  const blog = createServer((_, answer) => answer.setHeader('Content-Type', 'text/html').end(`<h1>Blog</h1>${embed}`)).listen(0, '127.0.0.1')
  await once(blog, 'listening')
  await watch.goto(`http://127.0.0.1:${(blog.address() as AddressInfo).port}/`)
  await expect(watch.frameLocator('iframe').getByText('▶ Play')).toBeVisible()
  blog.close()

  // The web folder, on a host that knows nothing of Wexel, and from disk.
  const upload = await watch.request.put(`${outside}/sites/fares`, { data: readFileSync(zip), maxRedirects: 0 })
  expect(upload.status()).toBe(302)
  execFileSync('unzip', ['-q', '-o', zip, '-d', join(folder, 'unpacked')])
  for (const address of [`${outside}/sites/fares/${encodeURIComponent(own)}/index.html`, pathToFileURL(join(folder, 'unpacked', own, 'index.html')).href]) {
    const faults: string[] = []
    const placed = await context.newPage()
    placed.on('pageerror', (error) => faults.push(error.message))
    // A seek gives up the range that was being fetched; that is no fault.
    placed.on('requestfailed', (request) => request.failure()?.errorText !== 'net::ERR_ABORTED' && faults.push(request.url()))
    await placed.goto(`${address}#t=0:05`)
    await expect.poll(() => placed.evaluate(() => document.querySelector('video')?.currentTime)).toBe(5)
    await expect(placed.getByRole('link', { name: /white/ })).toHaveAttribute('aria-current', 'true')
    await placed.keyboard.press('Space')
    await expect.poll(() => placed.evaluate(() => document.querySelector('video')?.currentTime ?? 0)).toBeGreaterThan(5.5)
    if (address.startsWith('http')) {
      // A learner watches the hosted one from the start, and it is complete; the browser keeps that.
      await placed.evaluate(() => {
        const video = document.querySelector('video')
        if (video) video.currentTime = 0
      })
      await expect(placed.getByText('You have completed this lesson.')).toBeVisible({ timeout: 60_000 })
      await placed.reload()
      await expect(placed.getByText('You have completed this lesson.')).toBeVisible()
    } else {
      await placed.keyboard.press('Space')
    }
    expect(faults).toEqual([])
    await placed.close()
  }

  // Against outside readers: W3C's WebVTT grammar by webvtt-parser, the MP4 by mp4box.
  for (const [file, kind] of [
    ['captions-en-GB.vtt', 'subtitles'],
    ['contents.vtt', 'chapters'],
  ] as const) {
    const parsed = new webvtt.WebVTTParser().parse(readFileSync(join(folder, 'unpacked', own, file), 'utf8'), kind)
    expect(parsed.errors).toEqual([])
    expect(parsed.cues.length).toBe(file === 'captions-en-GB.vtt' ? 1 : 3)
  }
  const bytes = readFileSync(join(folder, 'unpacked', own, 'lesson.mp4'))
  const mp4 = createFile()
  const info = await new Promise<{ tracks: { codec: string }[]; isProgressive: boolean; duration: number; timescale: number }>((ready, failed) => {
    mp4.onReady = ready as never
    mp4.onError = ((_: string, message: string) => failed(new Error(message))) as never
    mp4.appendBuffer(MP4BoxBuffer.fromArrayBuffer(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer, 0), true)
    mp4.flush()
  })
  expect(info.tracks.map((t) => t.codec)).toEqual(expect.arrayContaining(['avc1.64001e', 'mp4a.40.2']))
  expect(info.isProgressive).toBe(true)
  expect(info.duration / info.timescale).toBeCloseTo(14, 1)
  await context.close()
})

test('a render can be stopped, and nothing is kept', async ({ page }) => {
  await signIn(page)
  await page.getByLabel('Choose recordings').setInputFiles(clip('Long and busy.mp4', 40, '-vf', 'noise=alls=60:allf=t', '-preset', 'ultrafast', '-b:v', '8M'))
  await page.waitForURL(/bring-in/, { timeout: 60_000 })
  await page.getByRole('link', { name: 'Deliver' }).click()
  await openFiles(page)
  await page.getByRole('button', { name: 'Render', exact: true }).click({ timeout: 90_000 })
  await expect(page.getByText(/Rendering, \d+ %/)).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: 'Stop it' }).click()
  await expect(page.getByText('Stopped; nothing was kept')).toBeVisible()
})
