import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { expect, test } from '@playwright/test'
import { clip, folder, hasNoAccessibilityFaults } from './help'

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
