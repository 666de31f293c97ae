import { execFileSync } from 'node:child_process'
import { once } from 'node:events'
import { createReadStream, existsSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { extname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { expect, type Frame, type FrameLocator, type Page, test } from '@playwright/test'
import { clip, folder, hasNoAccessibilityFaults, release, rendered, signIn } from './help'

test.describe.configure({ timeout: 420_000 })

const title = 'Lanes ]]> & <b>decks</b>'
let package_ = ''

type Inside = Frame | FrameLocator
const heading = (inside: Inside) => inside.getByRole('heading', { level: 1, name: title })

/** Plays a lesson inside a frame or window up to a time, and pauses there. */
async function playTo(page: Page, inside: Inside, seconds: number) {
  const video = inside.locator('video')
  // The page itself pauses it: asked from outside, a busy machine lets it run on.
  await video.evaluate(async (v: HTMLVideoElement, until: number) => {
    await v.play()
    while (v.currentTime < until && !v.ended) await new Promise((next) => setTimeout(next, 20))
    v.pause()
  }, seconds)
  await page.waitForTimeout(300)
}

test('a lesson is packed, sent to the learning system, resumed and completed there', async ({ page }) => {
  await signIn(page)
  await rendered(page, clip('Lanes.mp4', 12), title, '0:00 First\n0:04 Second\n0:08 Third')
  const outlet = page.getByTestId('outlet-learningSystem')
  await release(page, outlet)
  const downloading = page.waitForEvent('download')
  await outlet.getByRole('link', { name: /Download the package as a ZIP/ }).click()
  package_ = join(folder, 'package.zip')
  await (await downloading).saveAs(package_)
  await expect(outlet.getByText(/Sent to Harbour School/)).toBeVisible()
  await hasNoAccessibilityFaults(page)
  const course = await outlet.getByLabel('Link', { exact: true }).inputValue()

  // First launch, in a frame: half of it is watched.
  const school = await page.context().newPage()
  await school.goto(course)
  await hasNoAccessibilityFaults(school)
  const launch = (how: string) => school.getByRole('link', { name: `${how}: ${title}, as Marr, Ilse` })
  await launch('in a frame').click()
  const lesson = school.frameLocator('iframe')
  await expect(heading(lesson)).toBeVisible()
  await expect(lesson.getByText('The learning system records what you have seen.')).toBeVisible()
  await playTo(school, lesson, 6)
  await school.getByRole('link', { name: 'back to the course' }).click()
  const row = school.getByRole('row').filter({ hasText: 'Marr, Ilse' })
  await expect(row).toContainText('incomplete')
  await expect(row).toContainText(/0000:00:\d\d/)
  // Committed at the start, when the second section began, on pause and when the page went away: not with each moment that plays.
  await row.getByRole('link', { name: 'record' }).click()
  const commits = (await school.getByRole('table').nth(1).getByRole('row').allTextContents()).filter((c) => c.startsWith('LMSCommit'))
  expect(commits.length).toBeGreaterThanOrEqual(3)
  expect(commits.length).toBeLessThanOrEqual(5)
  await school.getByRole('link', { name: 'back to the course' }).click()

  // Resumed, in a window of its own: at the place, and on to the end.
  await launch('in a window').click()
  const opening = school.waitForEvent('popup')
  await school.getByRole('button', { name: 'Open the lesson' }).click()
  const window = await opening
  await expect(window.getByText(/You left off at 0:0[56]/)).toBeVisible()
  await playTo(window, window.mainFrame(), 11.9)
  await expect(window.getByText('You have completed this lesson.')).toBeVisible()
  // A window that is closed, or sent elsewhere from outside, gets under a second to take its leave, which a busy machine does not
  // always manage. One that goes to another page of the same place by itself takes the same leave, and gets the time that it needs.
  await window.evaluate((there) => location.assign(there), course)
  await window.waitForURL(course)
  await window.close()
  await school.getByRole('link', { name: 'record' }).click()
  const kept = school.getByRole('table').first().getByRole('row')
  await expect(kept.filter({ hasText: 'cmi.core.lesson_status' })).toContainText('completed')
  await expect(kept.filter({ hasText: 'cmi.suspend_data' })).toContainText('w1;1;')
  const calls = () => school.getByRole('table').nth(1).getByRole('row').allTextContents()
  expect((await calls()).some((c) => c.startsWith('LMSSetValue("cmi.core.lesson_status", "completed")true0'))).toBe(true)
  // A window that closes says so while it goes, which may come after the record was opened.
  await expect
    .poll(async () => {
      await school.reload()
      return (await calls()).filter((c) => c.startsWith('LMSFinish')).length
    })
    .toBeGreaterThanOrEqual(1)
  expect((await calls()).slice(1).filter((c) => !c.endsWith('0'))).toEqual([])
  await hasNoAccessibilityFaults(school)

  // A look at it records nothing; another learner starts afresh.
  await school.getByRole('link', { name: 'back to the course' }).click()
  await launch('review').click()
  await expect(lesson.getByText('This is a look at the lesson: nothing of it is recorded.')).toBeVisible()
  await school.getByRole('link', { name: 'back to the course' }).click()
  await school.getByRole('link', { name: `in a frame: ${title}, as Finch, Odo` }).click()
  await expect(lesson.getByText('You have seen 0 % of this lesson')).toBeVisible()
})

test('the same package runs in scorm-again from first launch to completion, and by itself from disk', async ({ page }) => {
  expect(package_, 'the test before makes the package').not.toBe('')
  const unpacked = join(folder, 'package')
  execFileSync('unzip', ['-q', '-o', package_, '-d', unpacked])
  // The published schemas, by a reader that is not ours. ims_xml.xsd is as strict parsers take it.
  execFileSync('sed', ['-i', 's| xmlns="http://www.w3.org/XML/1998/namespace"||', join(unpacked, 'ims_xml.xsd')])
  execFileSync('sed', ['-i', 's|namespace="##any" processContents|namespace="##other" processContents|', join(unpacked, 'imsmd_rootv1p2p1.xsd')])
  const schemas = [
    ['http://www.imsproject.org/xsd/imscp_rootv1p1p2', 'imscp_rootv1p1p2.xsd'],
    ['http://www.adlnet.org/xsd/adlcp_rootv1p2', 'adlcp_rootv1p2.xsd'],
    ['http://www.imsglobal.org/xsd/imsmd_rootv1p2p1', 'imsmd_rootv1p2p1.xsd'],
  ].map(([namespace, file]) => `<xsd:import namespace="${namespace}" schemaLocation="${file}"/>`)
  writeFileSync(join(unpacked, 'all.xsd'), `<xsd:schema xmlns:xsd="http://www.w3.org/2001/XMLSchema">${schemas.join('')}</xsd:schema>`)
  execFileSync('xmllint', ['--noout', '--nonet', '--schema', join(unpacked, 'all.xsd'), join(unpacked, 'imsmanifest.xml')], { stdio: 'pipe' })

  const runtime = join(import.meta.dirname, '../../node_modules/scorm-again/dist/scorm12.min.js')
  const types: Record<string, string> = { '.html': 'text/html', '.js': 'text/javascript', '.css': 'text/css', '.mp4': 'video/mp4' }
  const server = createServer((request, answer) => {
    const path = decodeURIComponent(new URL(request.url ?? '/', 'http://x').pathname)
    if (path === '/system') {
      answer.setHeader('Content-Type', 'text/html')
      answer.end(`<script src="/runtime.js"></script><script>
        window.API = new Scorm12API({ autocommit: false })
        const kept = JSON.parse(sessionStorage.getItem('cmi') ?? 'null')
        if (kept) API.loadFromJSON({ ...kept.cmi, core: { ...kept.cmi.core, entry: kept.cmi.core.exit === 'suspend' ? 'resume' : '', exit: undefined, session_time: undefined } }, 'cmi')
        API.on('LMSCommit', () => sessionStorage.setItem('cmi', JSON.stringify(API.renderCommitCMI(true))))
        </script><iframe src="/index.html" width="1100" height="700"></iframe>`)
      return
    }
    const file = path === '/runtime.js' ? runtime : join(unpacked, path)
    if (!existsSync(file)) {
      answer.writeHead(404).end()
      return
    }
    const size = statSync(file).size
    const [, from, to] = /bytes=(\d+)-(\d*)/.exec(request.headers.range ?? '') ?? []
    const [start, end] = [Number(from ?? 0), to ? Number(to) : size - 1]
    answer.writeHead(from ? 206 : 200, {
      'Content-Type': types[extname(file)] ?? 'application/octet-stream',
      'Content-Length': end - start + 1,
      'Accept-Ranges': 'bytes',
      ...(from ? { 'Content-Range': `bytes ${start}-${end}/${size}` } : {}),
    })
    createReadStream(file, { start, end }).pipe(answer)
  }).listen(0, '127.0.0.1')
  await once(server, 'listening')
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/system`
  const kept = () => page.evaluate(() => JSON.parse(sessionStorage.getItem('cmi') ?? '{"cmi":{"core":{}}}').cmi)

  await page.goto(address)
  const lesson = page.frameLocator('iframe')
  await expect(heading(lesson)).toBeVisible()
  expect((await kept()).core.lesson_status).toBe('incomplete')
  await playTo(page, lesson, 5.5)
  expect((await kept()).core.exit).toBe('suspend')
  expect((await kept()).suspend_data).toMatch(/^w1;/)

  await page.goto('about:blank')
  await page.goto(address)
  await expect(lesson.getByText(/You left off at 0:05/)).toBeVisible()
  await playTo(page, lesson, 11.9)
  const last = await kept()
  expect(last.core.lesson_status).toBe('completed')
  // CMITimespan, as this run-time writes it again when it is asked for all it keeps.
  expect(last.core.session_time).toMatch(/^\d{2,4}:\d{2}:\d{2}(\.\d{1,2})?$/)
  server.close()

  await page.goto(pathToFileURL(join(unpacked, 'index.html')).href)
  await expect(page.getByText('No learning system is around this page: the lesson plays, and nothing is recorded.')).toBeVisible()
  await playTo(page, page.mainFrame(), 1)
  expect(readFileSync(join(unpacked, 'index.html'), 'utf8')).not.toContain('<b>decks')
})

test('one press renders a course’s lessons, packs them and puts them there', async ({ page }) => {
  await signIn(page)
  await page.goto('/board')
  const course = page.getByTestId('whole-course').filter({ hasText: 'Ticket desk basics' }).filter({ hasText: 'Harbour School' })
  await course.getByLabel('Profile').selectOption({ label: 'Small 480p' })
  await course.getByRole('button', { name: /^Release the course to/ }).click()
  await expect(course.getByText('Rendering')).toBeVisible()
  await expect(course.getByText(/^Made, /)).toBeVisible({ timeout: 120_000 })
  await expect(course.getByRole('button', { name: /^Release the course to/ })).toBeHidden()
  await hasNoAccessibilityFaults(page)
})
