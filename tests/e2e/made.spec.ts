import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { clip, folder, hasNoAccessibilityFaults, release, rendered, signIn } from './help'

test('everything made says what it is for, downloads as one, keeps a master, and goes with what depends on it', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  await rendered(page, clip('Gangway.mp4', 17), 'Gangway', '0:00 First\n0:05 Second')
  const channel = page.getByTestId('outlet-channel')
  await release(page, channel)
  await page.getByRole('link', { name: 'Everything made of this lesson' }).click()
  await expect(page.getByRole('heading', { name: 'Gangway: everything made' })).toBeVisible()
  const web = page.getByTestId('made-file').filter({ hasText: 'Web, as recorded' })
  await expect(web).toContainText('Hand on this one')
  await expect(web).toContainText('Link its page and not the file')
  await expect(web).toContainText('up to date')
  await hasNoAccessibilityFaults(page)

  // The sum that is shown is the file's.
  const single = page.waitForEvent('download')
  await web.getByRole('link', { name: /Download/ }).click()
  const path = join(folder, 'gangway.mp4')
  await (await single).saveAs(path)
  await expect(web).toContainText(createHash('sha256').update(readFileSync(path)).digest('hex'))

  await page.getByRole('button', { name: 'Keep a master copy' }).click()
  await expect(page.getByText(/The master copy stands in the queue/)).toBeVisible()
  const master = page.getByTestId('made-file').filter({ hasText: 'A master copy' })
  await expect(master).toContainText('Kept', { timeout: 120_000 })
  await expect(master.getByRole('button', { name: 'Delete…' })).toHaveCount(0)

  const all = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Download all as one ZIP' }).click()
  const zip = join(folder, 'gangway.zip')
  await (await all).saveAs(zip)
  execFileSync('unzip', ['-q', zip, '-d', join(folder, 'gangway')])
  execFileSync('sha256sum', ['--check', '--strict', '--quiet', 'SHA256SUMS.txt'], { cwd: join(folder, 'gangway') })

  await web.getByRole('button', { name: 'Delete…' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('The release to “Staff channel” is taken down: whoever follows its link finds nothing there.')
  await hasNoAccessibilityFaults(page)
  await dialog.getByRole('button', { name: 'Take it down and delete it' }).click()
  await expect(web).toHaveCount(0)
  await expect(master).toBeVisible()

  await page.getByRole('link', { name: /What the whole library takes/ }).click()
  await expect(page.getByText(/The library takes/)).toBeVisible()
  await expect(page.getByTestId('space-recordings')).toContainText('kept as long as its lessons')
  await hasNoAccessibilityFaults(page)
})
