import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'
import launch from '../../demo/chromium.json' with { type: 'json' }

export const ports = { server: 5285, outside: 5286, smtp: 5287 }

/** The server's folder; the workers read this file again, and are told the same one. */
process.env.WEXEL_E2E_DATA ??= mkdtempSync(join(tmpdir(), 'wexel-e2e-'))
export const data = process.env.WEXEL_E2E_DATA

export default defineConfig({
  testDir: '.',
  outputDir: '../../test-results',
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['json']],
  use: {
    baseURL: `http://127.0.0.1:${ports.server}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: launch,
  },
  webServer: {
    command: `bash serve.sh ${data} ${ports.server} ${ports.outside} ${ports.smtp}`,
    cwd: import.meta.dirname,
    url: `http://127.0.0.1:${ports.server}/healthz`,
    timeout: 120_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
  },
})
