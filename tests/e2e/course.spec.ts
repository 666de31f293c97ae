import { execFileSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { expect, test } from '@playwright/test'
import { clip, folder, hasNoAccessibilityFaults, release, rendered, signIn } from './help'
import { data } from './playwright.config'

test('a course made for any web server opens from disk, and says what was seen', async ({ page }) => {
  clip('one.mp4', 4)
  clip('two.mp4', 4)
  writeFileSync(
    join(folder, 'course.json'),
    JSON.stringify({
      title: 'Deck & desk',
      description: 'For the crews of all ships.',
      lessons: [
        { recording: 'one.mp4', title: 'Casting off', details: { description: 'Lines, fenders, ramp.' } },
        { recording: 'two.mp4', title: 'At sea: what to say?' },
      ],
    }),
  )
  const site = join(folder, 'site')
  execFileSync('dotnet', ['src/Wexel.Cli/bin/Release/net10.0/Wexel.Cli.dll', 'make', join(folder, 'course.json'), '--for', 'web', '--out', site], {
    cwd: join(import.meta.dirname, '../..'),
    stdio: 'pipe',
  })
  await page.goto(pathToFileURL(join(site, 'index.html')).href)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Deck & desk')
  await expect(page.getByText('2 lessons, 0:08')).toBeVisible()
  await expect(page.locator('li img').first()).toHaveJSProperty('complete', true)
  expect(await page.locator('li img').evaluateAll((all) => all.every((i) => (i as HTMLImageElement).naturalWidth > 0))).toBe(true)
  await hasNoAccessibilityFaults(page)
  await page.setViewportSize({ width: 360, height: 700 })
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= 360)).toBe(true)
  await page.setViewportSize({ width: 1280, height: 800 })

  await page.getByRole('link', { name: 'Casting off' }).click()
  await expect(page.getByText('lesson 1 of 2')).toBeVisible()
  await page.locator('video').evaluate((v: HTMLVideoElement) => {
    v.muted = true
    return v.play()
  })
  await expect(page.getByText('You have completed this lesson.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('link', { name: 'Next lesson At sea: what to say?' }).click()
  await expect(page.getByText('lesson 2 of 2')).toBeVisible()
  await hasNoAccessibilityFaults(page)
  await page.getByRole('link', { name: 'All lessons' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Casting off' })).toContainText('completed')
  await expect(page.getByRole('listitem').filter({ hasText: 'At sea' })).not.toContainText('seen')
})

test('a lesson that is released to a folder plays from there by double click', async ({ page }) => {
  test.setTimeout(240_000)
  const share = join(data, 'folders', 'crew')
  mkdirSync(share, { recursive: true })
  await signIn(page)
  const outlet = { name: 'Crew share', settings: {}, deliverBy: 'wholeFolder', deliverTo: share }
  expect((await page.request.post('/api/outlets/folder', { data: outlet })).ok()).toBe(true)
  await page.goto('/')
  await rendered(page, clip('gangway.mp4', 6), 'Gangway: up & down?', '0:00 Up\n0:03 Down')
  const place = page.getByTestId('outlet-folder')
  await release(page, place)
  const there = await place.getByLabel('Folder', { exact: true }).inputValue()
  expect(dirname(there)).toBe(share)

  await page.goto(pathToFileURL(join(there, 'index.html')).href)
  await page.locator('video').evaluate((v: HTMLVideoElement) => {
    v.muted = true
    return v.play()
  })
  await expect(page.getByText('You have completed this lesson.')).toBeVisible({ timeout: 20_000 })
})
