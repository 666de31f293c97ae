import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'
import launch from '../../demo/chromium.json' with { type: 'json' }

const workers = 2

/** Each worker has a server, a database and an outside world of its own, so that what one test sets for the house disturbs no other. */
const worldOf = (worker: number) => ({ server: 5285 + 10 * worker, outside: 5286 + 10 * worker, smtp: 5287 + 10 * worker, provider: 5288 + 10 * worker })
const own = Number(process.env.TEST_PARALLEL_INDEX ?? 0)
export const ports = worldOf(own)

/** The folder of the servers and the clips; the workers read this file again, and are told the same one. */
if (!process.env.WEXEL_E2E_DATA) {
  const folder = mkdtempSync(join(tmpdir(), 'wexel-e2e-'))
  process.env.WEXEL_E2E_DATA = folder
  process.on('exit', () => rmSync(folder, { recursive: true, force: true }))
}
const folderOf = (worker: number) => join(process.env.WEXEL_E2E_DATA as string, `${worker}`)
export const data = folderOf(own)

export default defineConfig({
  testDir: '.',
  outputDir: '../../test-results',
  workers,
  timeout: 120_000,
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json']],
  use: {
    baseURL: `http://127.0.0.1:${ports.server}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: launch,
  },
  webServer: Array.from({ length: workers }, (_, worker) => worker).map((worker) => {
    const { server, outside, smtp } = worldOf(worker)
    return {
      command: `bash serve.sh ${folderOf(worker)} ${server} ${outside} ${smtp} short`,
      cwd: import.meta.dirname,
      url: `http://127.0.0.1:${server}/healthz`,
      timeout: 240_000,
      gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
    }
  }),
})
