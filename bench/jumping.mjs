// From a jump to the new picture in Chromium: two files of one lesson, the same thirty places in each, in turn.
// Usage: node bench/jumping.mjs FILE OTHER; prints the ratio of the two middles, then both in milliseconds.
import { createReadStream, statSync } from 'node:fs'
import { createServer } from 'node:http'
import { chromium } from '@playwright/test'
import launch from '../demo/chromium.json' with { type: 'json' }

const files = process.argv.slice(2, 4)
const server = createServer((request, response) => {
  const path = files[Number(request.url.slice(1))]
  if (path === undefined) return response.setHeader('Content-Type', 'text/html').end('<title>Jumping</title>')
  const { size } = statSync(path)
  const [, from, to] = /bytes=(\d+)-(\d*)/.exec(request.headers.range ?? 'bytes=0-') ?? []
  const [start, end] = [Number(from), to ? Number(to) : size - 1]
  response.writeHead(206, {
    'Content-Type': 'video/mp4',
    'Content-Length': end - start + 1,
    'Content-Range': `bytes ${start}-${end}/${size}`,
    'Accept-Ranges': 'bytes',
  })
  createReadStream(path, { start, end }).pipe(response)
}).listen(0, '127.0.0.1')
await new Promise((listening) => server.once('listening', listening))

const browser = await chromium.launch(launch)
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`http://127.0.0.1:${server.address().port}/page`)
const taken = await page.evaluate(async () => {
  const videos = await Promise.all(
    [0, 1].map(async (n) => {
      const video = Object.assign(document.createElement('video'), { src: `/${n}`, muted: true, preload: 'auto', width: 640 })
      document.body.append(video)
      await new Promise((ready) => video.addEventListener('canplaythrough', ready, { once: true }))
      return video
    }),
  )
  const jump = (video, to) =>
    new Promise((shown) => {
      const asked = performance.now()
      video.requestVideoFrameCallback(() => shown(performance.now() - asked))
      video.currentTime = to
    })
  const length = Math.min(...videos.map((v) => v.duration)) - 2
  const taken = [[], []]
  for (let i = 0; i < 32; i++) {
    // The golden section scatters places evenly, and none is a section's start.
    const to = 1 + ((i * 0.6180339887) % 1) * (length - 1)
    for (const n of i % 2 ? [1, 0] : [0, 1]) taken[n].push(await jump(videos[n], to))
  }
  // The first two warm the decoder up.
  return taken.map((times) => times.slice(2).sort((a, b) => a - b)[15])
})
console.log(`${(taken[0] / taken[1]).toFixed(3)} ${taken.map((t) => t.toFixed(0)).join(' / ')}`)
await browser.close()
server.close()
