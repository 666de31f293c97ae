// Measures how long it takes from a press to places that have it, on the running server: prints lines of "what|value|budget".
import { execFileSync } from 'node:child_process'
import { mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { signIn } from './client.mjs'

const [port, work] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { cookie, ask } = await signIn(base)
const wait = (ms) => new Promise((done) => setTimeout(done, ms))
const seconds = async (act) => {
  const begun = performance.now()
  await act()
  return (performance.now() - begun) / 1000
}
const middle = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]

// Four places: a channel, a learning system that is sent its package, a feed, and a folder.
const folder = join(process.env.WEXEL_STATE, 'folders', 'bench')
mkdirSync(folder, { recursive: true })
const share = await ask('POST', '/api/outlets/folder', { name: 'Share', settings: {}, deliverBy: 'wholeFolder', deliverTo: folder })
const outlets = await ask('GET', '/api/outlets')
const places = [...['channel', 'learningSystem', 'podcastFeed'].map((kind) => outlets.find((o) => o.kind === kind).id), share.id]
// Nobody is asked whether there is material of others in what is brought in here.
await ask('PUT', '/api/house/details', { ...(await ask('GET', '/api/house/details')), thirdParty: { used: false, permission: '' } })
const wishes = (lessonId) => ({ wishes: places.map((outletId) => ({ lessonId, outletId, visibility: 'signedIn' })) })
const live = async (lessonId) => {
  for (;;) {
    const now = (await ask('GET', `/api/lessons/${lessonId}/releases`)).filter((o) => places.includes(o.id))
    const failed = now.find((o) => o.way?.phase === 'failed')
    if (failed) throw new Error(`${failed.name}: ${failed.way.problem.sentence}`)
    if (now.every((o) => o.way?.phase === 'live' && !o.release.behind)) return now
    await wait(20)
  }
}
const quiet = async () => {
  while ((await ask('GET', '/api/queue')).some((r) => r.state === 'waiting' || r.state === 'working')) await wait(50)
}

// Everything rendered already: taken down and released again.
// The last of them: another part may have put a file of a gigabyte into the first.
const lesson = (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons).findLast((l) => l.releases.length > 2)
await ask('POST', '/api/releases', wishes(lesson.id))
const first = await live(lesson.id)
const again = []
for (let i = 0; i < 5; i++) {
  for (const place of first) await ask('DELETE', `/api/releases/${place.way.id}`)
  again.push(
    await seconds(async () => {
      await ask('POST', '/api/releases', wishes(lesson.id))
      await live(lesson.id)
    }),
  )
}
console.log(`Released to four places with everything rendered, seconds, the middle of 5|${middle(again).toFixed(2)}|3`)

// A caption corrected, and every place true again.
const corrected = []
for (let i = 0; i < 5; i++) {
  const vtt = `WEBVTT\n\n00:01.000 --> 00:04.000\nCorrected for the ${i + 1}. time, at ${Date.now()}.\n`
  const put = await fetch(`${base}/api/captions?fileName=corrected.vtt&language=en-GB`, {
    method: 'PUT',
    headers: { Cookie: cookie, 'Content-Type': 'application/octet-stream' },
    body: vtt,
  })
  if (!put.ok) throw new Error(await put.text())
  const { track } = await put.json()
  corrected.push(
    await seconds(async () => {
      const now = await ask('GET', `/api/lessons/${lesson.id}`)
      await ask('PUT', `/api/lessons/${lesson.id}/document`, { basedOn: now.revision, document: { ...now.document, captions: [track] } })
      await ask('POST', '/api/releases', wishes(lesson.id))
      await live(lesson.id)
    }),
  )
}
console.log(`A caption corrected, and four places true again, seconds, the middle of 5|${middle(corrected).toFixed(2)}|2`)

// One press against rendering and checking alone, of a lesson of 52 seconds; each on a recording of its own, in turn.
const recording = async (name) => {
  const path = join(work, `${name}.mkv`)
  const from = ['-ss', '120', '-t', '52', '-i', 'demo/recordings/Recording 2026-11-04 101502.mkv']
  execFileSync('ffmpeg', [
    '-nostdin',
    '-v',
    'error',
    '-y',
    ...from,
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-crf',
    '16',
    '-c:a',
    'copy',
    '-metadata',
    `comment=${name}`,
    path,
  ])
  const put = await fetch(`${base}/api/recordings?fileName=${encodeURIComponent(`${name}.mkv`)}`, {
    method: 'PUT',
    headers: { Cookie: cookie, 'Content-Type': 'application/octet-stream' },
    body: readFileSync(path),
  })
  if (!put.ok) throw new Error(await put.text())
  const { lessonId } = await put.json()
  while ((await ask('GET', `/api/lessons/${lessonId}/deliver`)).profiles.length === 0) await wait(200)
  return lessonId
}
const [presses, renders] = [[], []]
for (let i = 0; i < 3; i++) {
  const [alone, pressed] = [await recording(`alone ${i}`), await recording(`pressed ${i}`)]
  await quiet()
  renders.push(
    await seconds(async () => {
      await ask('POST', '/api/renditions', { lessons: [alone], profiles: ['web', 'podcast-720p'] })
      await quiet()
    }),
  )
  presses.push(
    await seconds(async () => {
      await ask('POST', '/api/releases', wishes(pressed))
      await live(pressed)
    }),
  )
}
console.log(
  `From one press to all four live / render and check alone (${middle(renders).toFixed(1)} s), 52 seconds of lesson, the middle of 3|${(middle(presses) / middle(renders)).toFixed(2)}|1.15`,
)
await ask('POST', '/api/board/apply', { action: 'takeDown', cells: [lesson.id].map((lessonId) => ({ lessonId, outletId: share.id })) })
