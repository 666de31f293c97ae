import { defineConfig } from '@playwright/test'
import launch from '../../demo/chromium.json' with { type: 'json' }

export const ports = { server: 5285, outside: 5286, smtp: 5287 }

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
    command: `bash serve.sh ${ports.server} ${ports.outside} ${ports.smtp}`,
    cwd: import.meta.dirname,
    url: `http://127.0.0.1:${ports.server}/healthz`,
    timeout: 120_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
  },
})
