// Measures what is said before rendering against what comes, and the queue, on the running server: prints lines of "what|value|budget".
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import launch from '../demo/chromium.json' with { type: 'json' }
import { signIn } from './client.mjs'

const [port, work] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { cookie, ask } = await signIn(base)
const wait = (ms) => new Promise((done) => setTimeout(done, ms))
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]
const encoding = () => {
  try {
    return execFileSync('pgrep', ['-f', 'ffmpeg.*-progress pipe:1']).length > 0
  } catch {
    return false
  }
}
const open = (list) => list.filter((r) => r.state === 'waiting' || r.state === 'working')
const quiet = async () => {
  for (;;) {
    const list = await ask('GET', '/api/queue')
    if (open(list).length === 0) return list
    await wait(200)
  }
}

/** Brings in a recording that is made for this: what is seen, and a voice-like tone. */
const bringIn = async (name, picture, seconds) => {
  const path = join(work, `${name}.mp4`)
  const tone = `aevalsrc='0.2*sin(2*PI*220*t)*(0.6+0.4*sin(2*PI*3*t))*lt(mod(t,7),5)':s=48000:d=${seconds}`
  execFileSync('ffmpeg', ['-nostdin', '-v', 'error', '-y', '-f', 'lavfi', '-i', picture, '-f', 'lavfi', '-i', tone, '-pix_fmt', 'yuv420p', path])
  const answer = await fetch(`${base}/api/recordings?fileName=${encodeURIComponent(`${name}.mp4`)}`, {
    method: 'PUT',
    headers: { Cookie: cookie, 'Content-Type': 'application/octet-stream' },
    body: readFileSync(path),
  })
  if (!answer.ok) throw new Error(`${name}: ${await answer.text()}`)
}
await bringIn('All of it moves', 'testsrc2=s=1280x720:r=30:d=20', 20)
await bringIn('A box crosses the page', "color=white:s=1280x720:r=30:d=40,drawbox=x=60+8*t:y=60:w=240:h=80:c=navy:t=fill:enable='gte(mod(t,10),6)'", 40)
await bringIn(
  'A page for each ten seconds',
  `color=white:s=1920x1080:r=30:d=90${[1, 2, 3, 4, 5, 6, 7, 8].map((n) => `,drawbox=x=${100 * n}:y=${80 * n}:w=600:h=60:c=navy:t=fill:enable='gte(t,${10 * n})'`).join('')}`,
  90,
)

// Demo lessons and each of these with several profiles: what samples said, and what came. The first renditions teach how fast the machine is.
// A third of all pairs, so that each lesson comes with two of the profiles and each profile with a third of the lessons.
const lessons = (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons)
for (const lesson of lessons) while ((await ask('GET', `/api/lessons/${lesson.id}/deliver`)).profiles.length === 0) await wait(200)
const [sizes, times] = [[], []]
for (const [at, profile] of ['small-480p', 'full-hd', 'adaptive', 'podcast-720p', 'open-formats', 'master'].entries())
  for (const lesson of lessons.filter((l, i) => l.length < 120_000 && (i + at) % 3 === 0)) {
    const offer = (await ask('GET', `/api/lessons/${lesson.id}/deliver`)).profiles.find((p) => p.id === profile)
    if (!offer || offer.nothingToEncode || offer.findings.some((f) => f.isFault)) continue
    const said = await ask('POST', `/api/lessons/${lesson.id}/estimates/${profile}`)
    const [asked] = (await ask('POST', '/api/renditions', { lessons: [lesson.id], profiles: [profile] })).renditions
    const made = (await quiet()).find((r) => r.id === asked.id)
    if (made.state !== 'done') throw new Error(`${lesson.title}, ${profile}: ${made.said}`)
    const took = Date.parse(made.endedAt) - Date.parse(made.requestedAt)
    sizes.push((100 * Math.abs(said.bytes - made.bytes)) / made.bytes)
    times.push((100 * Math.abs(said.time - took)) / took)
    console.error(`${lesson.title}, ${profile}: ${said.bytes} B said, ${made.bytes} B made; ${said.time} ms said, ${took} ms taken`)
  }
console.log(`Size said before / made, error in the middle of ${sizes.length}, per cent|${median(sizes).toFixed(1)}|15`)
console.log(`Time said before / taken, error in the middle of ${times.length}, per cent|${median(times).toFixed(1)}|30`)

// From asking to an encoder that runs, the middle of five.
const starts = []
const first = lessons.find((l) => l.length > 120_000) ?? lessons[0]
for (let i = 0; i < 5; i++) {
  const web = (await ask('GET', '/api/profiles')).find((p) => p.profile.id === 'master').profile
  const copy = await ask('POST', '/api/profiles', {
    ...web,
    title: `Bench ${i}`,
    picture: { ...web.picture, copy: false, rate: { ...web.picture.rate, quality: 13 + i } },
  })
  const begun = performance.now()
  const [asked] = (await ask('POST', '/api/renditions', { lessons: [first.id], profiles: [copy.id] })).renditions
  while (!encoding()) await wait(5)
  starts.push(performance.now() - begun)
  await ask('POST', `/api/renditions/${asked.id}/cancel`)
  await quiet()
  while (encoding()) await wait(50)
}
console.log(`From asking to an encoder that runs, milliseconds, the middle of five|${median(starts).toFixed(0)}|1000`)

// 200 in the queue, those of one lesson worked on: how often the page hears of it, and what each time costs its main thread.
const profiles = []
const one = (await ask('GET', '/api/profiles')).find((p) => p.profile.id === 'master').profile
for (let i = 0; i < 50; i++)
  profiles.push(
    (await ask('POST', '/api/profiles', { ...one, title: `Queue ${i}`, picture: { ...one.picture, copy: false, keyFrameSeconds: 2 + i / 100 } })).id,
  )
const asked = (await ask('POST', '/api/renditions', { lessons: lessons.slice(0, 4).map((l) => l.id), profiles })).renditions
const browser = await chromium.launch(launch)
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
const [name, value] = cookie.split('=')
await context.addCookies([{ name, value, url: base }])
const page = await context.newPage()
const cdp = await context.newCDPSession(page)
await cdp.send('Network.enable')
const heard = []
cdp.on('Network.webSocketFrameReceived', ({ response }) => response.payloadData.includes('"progress"') && heard.push(performance.now()))
await page.goto(`${base}/queue`)
await page.getByText(/renditions under way/).waitFor()
while (heard.length === 0) await wait(100)
await cdp.send('Performance.enable')
const busy = async () => (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'TaskDuration').value * 1000
const before = await busy()
heard.length = 0
await wait(15_000)
const spent = (await busy()) - before
const gaps = heard.slice(1).map((at, i) => at - heard[i])
console.log(`${asked.length} in the queue: main-thread work an update, milliseconds, over ${heard.length} updates|${(spent / heard.length).toFixed(0)}|100`)
console.log(`Progress reaches the page: longest between two updates, milliseconds|${Math.max(...gaps).toFixed(0)}|1000`)
await browser.close()
for (const r of asked) await ask('POST', `/api/renditions/${r.id}/cancel`).catch(() => undefined)
await quiet()
