// Waits until the demo stands on the running server: what it releases is there, and all its recordings were looked through.
// Usage: node bench/demo.mjs PORT; prints the seconds until the first lesson was released, until all were, and until nothing is left to do.
import { readFileSync } from 'node:fs'
import { signIn } from './client.mjs'

const { ask } = await signIn(`http://127.0.0.1:${process.argv[2]}`)
const demo = JSON.parse(readFileSync(`${process.env.WEXEL_DEMO ?? 'demo'}/lessons.json`, 'utf8'))
const toRelease = demo.filter((l) => l.released).length
const began = performance.now()
const taken = () => ((performance.now() - began) / 1000).toFixed(0)
let [first, all] = []
for (;;) {
  const lessons = (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons)
  const released = lessons.filter((l) => l.releases.length > 0).length
  if (released > 0) first ??= taken()
  if (released >= toRelease) all ??= taken()
  if (all && lessons.length === demo.length) {
    const recordings = await Promise.all(
      lessons.map(async (l) => ask('GET', `/api/recordings/${(await ask('GET', `/api/lessons/${l.id}`)).document.recordingHash}`)),
    )
    if (recordings.every((r) => r.viewable && r.analysis?.lookedUntil === null)) break
  }
  await new Promise((done) => setTimeout(done, 500))
}
console.log(first, all, taken())
