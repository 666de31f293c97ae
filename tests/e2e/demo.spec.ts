import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { signIn } from './help'
import { data, ports } from './playwright.config'

// All other tests go by the first seconds of the demo's lessons; this one starts it as a newcomer does.
const server = ports.server + 5
test.use({ baseURL: `http://127.0.0.1:${server}` })

interface Demo {
  title: string
  length: string
  released?: boolean
}

test('the whole demo is there at the first start, each lesson in its course and as long as it was recorded', async ({ page }) => {
  test.setTimeout(240_000)
  const starting = spawn('bash', [join(import.meta.dirname, 'serve.sh'), `${data}-whole`, `${server}`, `${server + 1}`, `${server + 2}`, 'whole'], {
    stdio: 'ignore',
  })
  try {
    await expect.poll(async () => (await page.request.get('/healthz').catch(() => null))?.ok() ?? false, { timeout: 60_000 }).toBe(true)
    const lessons: Demo[] = JSON.parse(readFileSync(join(import.meta.dirname, '../../demo/lessons.json'), 'utf8'))
    await signIn(page)
    const rows = page.getByRole('row')
    for (const { title, length } of lessons) await expect(rows.filter({ hasText: title })).toContainText(length)
    await page.getByRole('link', { name: lessons[0]?.title }).click()
    await expect(page.getByTestId('run-sheet').locator('img').first()).toBeVisible({ timeout: 60_000 })
  } finally {
    starting.kill('SIGTERM')
    await once(starting, 'exit')
  }
})
