import { execFileSync } from 'node:child_process'
import { mkdirSync, statSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { Readable } from 'node:stream'
import { expect, test } from '@playwright/test'
import FeedParser from 'feedparser'
import jsQR from 'jsqr'
import Parser from 'rss-parser'
import { clip, folder, hasNoAccessibilityFaults, release, rendered, saysNothingIsOfOthers, signIn } from './help'
import { ports } from './playwright.config'

test.describe.configure({ timeout: 420_000 })

const title = 'Ropes & <b>knots</b>'

interface Episode {
  title: string
  guid: string
  enclosures: { url: string; type: string; length: string }[]
}

/** What the feedparser package makes of a feed. */
function parsed(xml: string): Promise<Episode[]> {
  return new Promise((ready, failed) => {
    const found: Episode[] = []
    const parser = new FeedParser({ normalize: true })
    parser.on('error', failed)
    parser.on('readable', () => {
      for (let item = parser.read(); item; item = parser.read()) found.push(item as Episode)
    })
    parser.on('end', () => ready(found))
    Readable.from([xml]).pipe(parser)
  })
}

test('a feed is made, checked, released to, subscribed to, played and submitted', async ({ page }) => {
  await signIn(page)
  await page.goto('/kit')
  await page.getByLabel('Use another mark').setInputFiles({ name: 'mark.png', mimeType: 'image/png', buffer: Buffer.from('just text') })
  await expect(page.getByText('The file is no picture that can be read. Choose a JPEG or PNG.')).toBeVisible()
  await page.getByLabel(/The house’s colour/).fill('teal')
  await page.getByRole('button', { name: 'Save the colour' }).click()
  await expect(page.getByText('Write the colour as # and six hexadecimal digits, such as #0B6570.')).toBeVisible()
  await page.getByLabel(/The house’s colour/).fill('#1D4E6B')
  await page.getByRole('button', { name: 'Save the colour' }).click()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('link', { name: 'Add an outlet' }).click()
  await page.getByLabel('podcast feed').check()
  await page.getByRole('link', { name: 'Go on with the podcast feed' }).click()
  await expect(page.getByLabel(/Artwork’s colour/)).toHaveValue('#1D4E6B')
  await page.getByRole('button', { name: 'Add the feed' }).click()
  await expect(page.getByText('Give the feed a title; apps list it by that.')).toBeVisible()
  await page.getByLabel('Title', { exact: true }).fill('Deck hands')
  await page.getByLabel('Description').fill('Short lessons for the deck.')
  await hasNoAccessibilityFaults(page)
  await page.getByRole('button', { name: 'Add the feed' }).click()

  // Checked before anything is submitted: what is missing is named with its rule.
  await expect(page.getByRole('heading', { name: /Feed check .* 3 things keep it out/ })).toBeVisible()
  await expect(page.getByText('Directories’ requirements: <itunes:author>'.replace('’', "'"))).toBeVisible()
  await page.getByLabel('Author, as apps show it').fill('Staff training')
  await page.getByLabel('Owner’s mail address').fill('mara.tarn@brackwater.example')
  await page.getByLabel('A second feed beside it has the same episodes as sound alone').check()
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('heading', { name: /Feed check .* 1 thing keeps it out/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /^Captions in each language A transcript each/ })).toBeVisible()
  await expect(page.getByText('There is no episode yet')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  const address = await page.getByLabel('Feed', { exact: true }).inputValue()
  const soundAddress = await page.getByLabel('Feed of sound').inputValue()

  // Artwork that cannot be used says why.
  await page.getByLabel('Use a picture of your own').setInputFiles({ name: 'art.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('just text') })
  await expect(page.getByText('The file is no picture that can be read. Choose a JPEG or PNG.')).toBeVisible()

  // The outlet wants a constant rate: what it takes by itself is rendered by the same press.
  await page.goto('/')
  await rendered(page, clip('Knots.mp4', 8), title, '0:00 First\n0:04 Second')
  const outlet = page.getByTestId('outlet-podcastFeed').filter({ hasText: 'Deck hands' })
  await outlet.getByRole('checkbox').first().check()
  await saysNothingIsOfOthers(page)
  await expect(page.getByText(/^1 file is rendered; about/)).toBeVisible()
  await release(page, outlet)
  await expect(outlet.getByLabel('Feed', { exact: true })).toHaveValue(address)
  await expect(outlet.getByLabel('Feed of sound')).toHaveValue(soundAddress)
  await hasNoAccessibilityFaults(page)

  // Two readers from the registry find the episode.
  const xml = await (await page.request.get(address)).text()
  const [episode] = await parsed(xml)
  // This reader takes out what looks like a tag; the other leaves titles as they are.
  expect(episode).toMatchObject({ title: 'Ropes & knots', enclosures: [{ type: 'video/x-m4v' }] })
  const read = await new Parser().parseString(xml)
  expect(read.items).toHaveLength(1)
  expect(read.items[0]).toMatchObject({ title, guid: episode?.guid, enclosure: { url: episode?.enclosures[0]?.url } })
  expect(read.items[0]?.itunes?.duration).toBe('8')

  // The second feed has the same as sound, and its page leads to both.
  const sound = await (await page.request.get(soundAddress)).text()
  expect((await parsed(sound))[0]).toMatchObject({ title: 'Ropes & knots', enclosures: [{ type: 'audio/x-m4a' }] })
  expect((await new Parser().parseString(sound)).title).toBe('Deck hands (sound)')

  // Two of Debian's podcast clients take it: one lists the episode, the other downloads it whole.
  const client = join(folder, 'clients')
  mkdirSync(join(client, 'library'), { recursive: true })
  writeFileSync(join(client, 'urls'), `${address}\n`)
  writeFileSync(join(client, 'serverlist'), `${address} Ferries Deck\n`)
  const newsboat = ['-u', join(client, 'urls'), '-c', join(client, 'cache.db'), '-C', '/dev/null', '-x', 'reload', 'print-unread']
  expect(execFileSync('newsboat', newsboat).toString().trim()).toBe('1 unread articles')
  execFileSync('podget', ['-d', client, '--create-config', 'podgetrc'])
  execFileSync('podget', ['-d', client, '-c', 'podgetrc', '-l', join(client, 'library'), '--serverlist', 'serverlist', '-n', '-s'])
  const downloaded = join(client, 'library', 'Ferries', 'Deck', basename(episode?.enclosures[0]?.url ?? ''))
  expect(statSync(downloaded).size).toBe(Number(episode?.enclosures[0]?.length))

  // A listener subscribes, downloads in pieces and plays; a second look is answered with 304.
  const listener = await (
    await page
      .context()
      .browser()
      ?.newContext({ baseURL: `http://127.0.0.1:${ports.outside}` })
  )?.newPage()
  if (!listener) throw new Error('no browser')
  await listener.goto('/podcasts')
  await listener.getByLabel('Address of the feed').fill(address)
  await listener.getByRole('button', { name: 'Subscribe' }).click()
  await expect(listener.getByRole('heading', { name: 'Deck hands' })).toBeVisible()
  await expect(listener.getByText('Nothing.')).toBeVisible()
  // The page is there before its picture is.
  await expect
    .poll(() => listener.getByRole('img', { name: /Artwork/ }).evaluate((i: HTMLImageElement) => [i.naturalWidth, i.naturalHeight]))
    .toEqual([3000, 3000])
  await listener.getByRole('button', { name: 'Refresh' }).click()
  await expect(listener.getByText(/if it changed: 304/)).toBeVisible()
  await hasNoAccessibilityFaults(listener)
  await listener.getByRole('link', { name: title }).click()
  await listener.getByRole('button', { name: /Download/ }).click()
  const video = listener.locator('video')
  await listener.getByRole('button', { name: '0:04 Second' }).click()
  await video.evaluate((v: HTMLVideoElement) => v.play())
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.ended), { timeout: 60_000 }).toBe(true)
  expect(await video.evaluate((v: HTMLVideoElement) => v.duration)).toBeCloseTo(8, 0)
  await hasNoAccessibilityFaults(listener)

  // The directory keeps an unlisted feed out, and takes it once it is listed; the owner is written to.
  const submit = async () => {
    await listener.goto('/directory')
    await listener.getByLabel('Address of the feed').fill(address)
    await listener.getByRole('button', { name: 'Submit' }).click()
    await expect(listener.getByText('waiting')).toBeVisible()
    await expect(async () => {
      await listener.reload()
      await expect(listener.getByText('waiting')).toBeHidden({ timeout: 500 })
    }).toPass({ timeout: 30_000 })
  }
  await submit()
  await expect(listener.getByText('The feed asks directories to keep it out (itunes:block).')).toBeVisible()
  await outlet.getByRole('link', { name: /Feed check/ }).click()
  await page.getByLabel(/Unlisted/).uncheck()
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText(/open to directories/)).toBeVisible()
  // Submitted from here, its state is kept: submitted, accepted, and the page there is what is handed on.
  const directories = page
    .getByRole('listitem')
    .filter({ hasText: 'Directory desk' })
    .filter({ hasText: /the feed(?! of sound)/ })
  await directories.getByRole('button', { name: 'Submit it' }).click()
  await expect(directories.getByText(/submitted \d/)).toBeVisible()
  await expect(directories.getByText(/accepted \d/)).toBeVisible()
  await hasNoAccessibilityFaults(page)
  const listed = (await directories.getByRole('link', { name: 'Its page there' }).getAttribute('href')) as string
  await expect(page.getByLabel('Page there')).toHaveValue(listed)
  await listener.goto(listed)
  await expect(listener.getByRole('heading', { name: 'Deck hands' })).toBeVisible()

  // The feed of sound beside it stands there by itself.
  const heard = page.getByRole('listitem').filter({ hasText: 'the feed of sound' })
  await heard.getByRole('button', { name: 'Submit it' }).click()
  await expect(heard.getByText(/accepted \d/)).toBeVisible()
  await expect(page.getByLabel('Page of the sound there')).toHaveValue(
    (await heard.getByRole('link', { name: 'Its page there' }).getAttribute('href')) as string,
  )
  await expect(page.getByLabel('Page there')).toHaveValue(listed)

  // Where learners subscribe: their own app, the address, a code that a phone's camera reads (by jsqr), a banner.
  const subscribe = await page.getByLabel('Page', { exact: true }).inputValue()
  await page.getByText('A banner for your own page').click()
  const banner = page.getByRole('img', { name: 'Subscribe to Deck hands' })
  await expect.poll(() => banner.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(360)
  expect(await page.getByLabel('Banner’s code').inputValue()).toContain(`<a href="${subscribe}">`)
  await listener.goto(subscribe)
  await expect(listener.getByRole('link', { name: 'Open it in your podcast app' })).toHaveAttribute('href', address.replace('http:', 'podcast:'))
  await expect(listener.getByLabel('Or copy the address into the app')).toHaveValue(address)
  await hasNoAccessibilityFaults(listener)
  const code = listener.getByRole('img', { name: /phone’s camera/ })
  const pixels = await code.evaluate(async (picture: HTMLImageElement) => {
    await picture.decode()
    const canvas = Object.assign(document.createElement('canvas'), { width: 400, height: 400 })
    const context = canvas.getContext('2d') as CanvasRenderingContext2D
    context.drawImage(picture, 0, 0, 400, 400)
    return Array.from(context.getImageData(0, 0, 400, 400).data)
  })
  expect(jsQR(Uint8ClampedArray.from(pixels), 400, 400)?.data).toBe(subscribe)

  // Private: each listener has an address of their own, and one is withdrawn by itself.
  await page.getByLabel(/Private/).check()
  await page.getByRole('button', { name: 'Save' }).click()
  for (const name of ['Joss Reed', 'Ana Quill']) {
    await page.getByLabel('Who the address is for').fill(name)
    await page.getByRole('button', { name: 'Give out an address' }).click()
    await expect(page.getByLabel(`Page for ${name}`)).toBeVisible()
  }
  await hasNoAccessibilityFaults(page)
  expect((await fetch(address)).status).toBe(404)
  const own = async (name: string) => (await page.getByLabel(`Page for ${name}`).inputValue()).replace('/subscribe/', '/feeds/').concat('/feed.xml')
  const [joss, ana] = [await own('Joss Reed'), await own('Ana Quill')]
  const theirs = await (await fetch(joss)).text()
  expect(theirs).toContain('<itunes:block>Yes</itunes:block>')
  const enclosure = /<enclosure url="([^"]+)"/.exec(theirs)?.[1] as string
  expect((await fetch(enclosure, { method: 'HEAD' })).status).toBe(200)
  await page.getByRole('button', { name: 'Withdraw the address of Joss Reed' }).click()
  await expect(page.getByLabel('Page for Joss Reed')).toHaveCount(0)
  expect([(await fetch(joss)).status, (await fetch(enclosure, { method: 'HEAD' })).status, (await fetch(ana)).status]).toEqual([404, 404, 200])
  await listener.goto('/mail')
  await expect(listener.getByRole('link', { name: 'Submitted: Deck hands' }).first()).toBeVisible()
  await expect(listener.getByRole('link', { name: 'Not accepted: Deck hands' })).toBeVisible()
  await expect(listener.getByRole('link', { name: 'Accepted: Deck hands', exact: true })).toBeVisible()
})
