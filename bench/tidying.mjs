// Measures bringing in, looking through and the run sheet on the running server: prints lines of "what|value|budget".
import { execFileSync } from 'node:child_process'
import { createReadStream, readFileSync, statSync, writeFileSync } from 'node:fs'
import { request } from 'node:http'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import { Upload } from 'tus-js-client'
import { signIn } from './client.mjs'

const [port, work] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { cookie, ask } = await signIn(base)
const wait = (ms) => new Promise((done) => setTimeout(done, ms))
const put = (path, file) =>
  new Promise((done, failed) => {
    const sent = request(
      base + path,
      { method: 'PUT', headers: { Cookie: cookie, 'Content-Type': 'application/octet-stream', 'Content-Length': statSync(file).size } },
      (answer) => {
        let said = ''
        answer.on('data', (part) => (said += part))
        answer.on('end', () => (answer.statusCode === 200 ? done(JSON.parse(said)) : failed(new Error(`${path}: ${said}`))))
      },
    )
    sent.on('error', failed)
    createReadStream(file).pipe(sent)
  })
const analysed = async (hash) => {
  for (;;) {
    const view = await ask('GET', `/api/recordings/${hash}`)
    if (view.analysisFailure) throw new Error(view.analysisFailure)
    if (view.analysis && view.analysis.lookedUntil === null) return view
    await wait(100)
  }
}
const timed = async (work) => {
  const begun = performance.now()
  await work()
  return performance.now() - begun
}

// A 10-minute lesson in full HD: two minutes of the long demo recording enlarged, with their sound, five times over.
const lesson = join(work, 'lesson-1080p.mp4')
const twoMinutes = join(work, 'two-minutes.mp4')
const long = 'demo/recordings/Recording 2026-11-04 101502.mkv'
execFileSync('ffmpeg', [
  '-v',
  'error',
  '-y',
  '-t',
  '120',
  '-i',
  long,
  '-vf',
  'scale=1920:1080',
  '-c:v',
  'libx264',
  '-preset',
  'ultrafast',
  '-crf',
  '20',
  '-c:a',
  'aac',
  twoMinutes,
])
execFileSync('ffmpeg', ['-v', 'error', '-y', '-stream_loop', '4', '-i', twoMinutes, '-c', 'copy', lesson])
const decode = await timed(() => execFileSync('ffmpeg', ['-v', 'error', '-i', lesson, '-f', 'null', '-']))
const began = performance.now()
const { hash } = await put('/api/recordings?fileName=lesson-1080p.mp4', lesson)
let first
let whole
while (!whole) {
  const view = await ask('GET', `/api/recordings/${hash}`)
  if (!first && view.analysis?.pictureMoments.length > 0) first = performance.now() - began
  if (view.analysis && view.analysis.lookedUntil === null) whole = performance.now() - began
  await wait(50)
}
console.log(`10 minutes of 1080p looked through / one plain decode (${(decode / 1000).toFixed(1)} s)|${(whole / decode).toFixed(2)}|1.3`)
console.log(`The same: first pictures on the sheet, seconds|${(first / 1000).toFixed(1)}|3`)

// 1 GB in pieces against 1 GB in one request; two files, since the same bytes would not be stored again.
const padded = (name, length) => {
  const clip = join(work, `${name}.clip.mp4`)
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', `testsrc2=d=${length}`, '-pix_fmt', 'yuv420p', '-movflags', '+faststart', clip])
  const file = join(work, `${name}.mp4`)
  const head = Buffer.alloc(8)
  head.writeUInt32BE(1_000_000_000, 0)
  head.write('free', 4)
  writeFileSync(file, Buffer.concat([readFileSync(clip), head]))
  execFileSync('dd', ['if=/dev/zero', `of=${file}`, 'bs=1M', 'count=953', 'oflag=append', 'conv=notrunc', 'status=none'])
  execFileSync('truncate', ['-s', String(statSync(clip).size + 1_000_000_000), file])
  return file
}
const [plainFile, piecesFile] = [padded('plain', 1), padded('pieces', 2)]
const plain = await timed(() => put('/api/recordings?fileName=plain.mp4', plainFile))
const pieces = await timed(
  () =>
    new Promise((done, failed) =>
      new Upload(createReadStream(piecesFile), {
        endpoint: `${base}/api/uploads`,
        uploadSize: statSync(piecesFile).size,
        chunkSize: 16 * 1024 * 1024,
        headers: { Cookie: cookie },
        metadata: { filename: 'pieces.mp4' },
        onSuccess: done,
        onError: failed,
      }).start(),
    ),
)
console.log(`1 GB in one request (${(plain / 1000).toFixed(1)} s), in tus pieces: time / time, at least 60 % as fast|${(pieces / plain).toFixed(2)}|1.67`)

// An hour with 400 pictures and 1,200 captions.
const hour = join(work, 'hour.mp4')
execFileSync('ffmpeg', [
  '-v',
  'error',
  '-y',
  '-f',
  'lavfi',
  '-i',
  "color=c=white:s=640x360:r=5:d=3600,drawbox=x='mod(floor(t/9)*37,500)':y='mod(floor(t/9)*23,280)':w=120:h=60:c=navy:t=fill",
  '-pix_fmt',
  'yuv420p',
  '-preset',
  'ultrafast',
  hour,
])
const brought = await put('/api/recordings?fileName=hour.mp4', hour)
const view = await analysed(brought.hash)
const at = (s) => new Date(s * 1000).toISOString().slice(11, 23)
const vtt = `WEBVTT\n\n${Array.from({ length: 1200 }, (_, i) => `${at(i * 3)} --> ${at(i * 3 + 2.5)}\nThis is caption ${i + 1} of the hour, as long as they are.\n`).join('\n')}`
const { track } = await (
  await fetch(`${base}/api/captions?fileName=hour.vtt&language=en`, {
    method: 'PUT',
    headers: { Cookie: cookie, 'Content-Type': 'application/octet-stream' },
    body: vtt,
  })
).json()
const now = await ask('GET', `/api/lessons/${brought.lessonId}`)
await ask('PUT', `/api/lessons/${brought.lessonId}/document`, { basedOn: now.revision, document: { ...now.document, title: 'An hour', captions: [track] } })

const launch = JSON.parse(readFileSync(join(dirname(fileURLToPath(import.meta.url)), '..', 'demo', 'chromium.json'), 'utf8'))
const browser = await chromium.launch(launch)
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
await context.addCookies([{ name: cookie.split('=')[0], value: cookie.slice(cookie.indexOf('=') + 1), url: base }])
const page = await context.newPage()
await page.goto(`${base}/`)
await page.getByRole('heading', { name: 'Lessons', exact: true }).waitFor()
const opening = await timed(async () => {
  await page.getByRole('link', { name: /An hour/ }).click()
  await page.getByTestId('run-sheet').getByText('This is caption 1 of the hour').waitFor()
  await page.locator('[data-testid=run-sheet] img').first().waitFor()
})
console.log(`An hour with ${view.analysis.pictureMoments.length} pictures and 1,200 captions: the sheet opens, seconds|${(opening / 1000).toFixed(2)}|1`)
// Frame times while the sheet is scrolled as a wheel does, against those of the same page at rest in the same run.
const frames = (scrolled) =>
  page.evaluate(
    (pixels) =>
      new Promise((done) => {
        const sheet = document.querySelector('[data-testid=run-sheet]')
        const times = []
        let [pictures, missing] = [0, 0]
        let last = performance.now()
        const step = (at) => {
          times.push(at - last)
          last = at
          for (const picture of sheet.querySelectorAll('img')) {
            pictures++
            if (!picture.complete || picture.naturalWidth === 0) missing++
          }
          sheet.scrollTop += pixels
          if (times.length < 300) requestAnimationFrame(step)
          else done({ times: times.slice(5).sort((a, b) => a - b), missing: (100 * missing) / pictures })
        }
        requestAnimationFrame(step)
      }),
    scrolled,
  )
const { times: rest } = await frames(0)
const { times: scrolling, missing } = await frames(60)
const part = (times, share) => times[Math.floor(times.length * share)]
console.log(
  `The same: a frame while scrolling / at rest (${part(rest, 0.5).toFixed(1)} ms), the middle one|${(part(scrolling, 0.5) / part(rest, 0.5)).toFixed(2)}|1.1`,
)
console.log(
  `The same: of 100 frames while scrolling, as many take more than two frames' time|${((100 * scrolling.filter((t) => t > 2.2 * part(rest, 0.5)).length) / scrolling.length).toFixed(1)}|1`,
)
console.log(`The same: of 100 pictures that are drawn while scrolling, as many are not there yet|${missing.toFixed(1)}|5`)
await browser.close()
// The demo's own lessons are the longest again, for what is measured after this.
await ask('POST', '/api/bin', { lessons: [brought.lessonId] })
