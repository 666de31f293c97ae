// Measures the running server: prints lines of "what|value|budget".
import { execFileSync } from 'node:child_process'
import { createReadStream, openSync, readFileSync, rmSync, statSync, writeSync } from 'node:fs'
import { request } from 'node:http'
import { join } from 'node:path'
import { sql as askDatabase, signIn } from './client.mjs'

const [port, work] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { cookie, ask } = await signIn(base)

const id = (await ask('GET', '/api/lessons'))[0].lessons[0].id
const channel = (await ask('GET', `/api/lessons/${id}/releases`)).find((o) => o.kind === 'channel')
const lesson = await ask('GET', `/api/lessons/${id}`)
const started = performance.now()
lesson.document.sections[1].title = `Changed ${Date.now()}`
await ask('PUT', `/api/lessons/${id}/document`, { basedOn: lesson.revision, document: lesson.document })
await ask('POST', `/api/lessons/${id}/releases`, { outletId: channel.id, profileId: channel.release.profileId, visibility: channel.release.visibility })
console.log(`Section's title changed and released again, seconds|${((performance.now() - started) / 1000).toFixed(2)}|2`)

// A 1 GB recording: a small clip with a gigabyte of padding in a free box, which players and probes pass over.
const clip = join(work, 'clip.mp4')
execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=d=1', '-pix_fmt', 'yuv420p', '-movflags', '+faststart', clip])
const padding = 1_000_000_000
const file = join(work, 'large.mp4')
const out = openSync(file, 'w')
writeSync(out, readFileSync(clip))
const head = Buffer.alloc(8)
head.writeUInt32BE(padding, 0)
head.write('free', 4)
writeSync(out, head)
const block = Buffer.alloc(1_000_000)
for (let written = 8; written < padding; written += block.length) writeSync(out, block, 0, Math.min(block.length, padding - written))

const server = execFileSync('pgrep', ['-f', 'Wexel.Server.dll'])
  .toString()
  .trim()
  .split('\n')
  .find((pid) => readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`127.0.0.1:${port}`))
const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server}/status`, 'utf8'))[1]) / 1000
/** How many megabytes the server's memory grows by while something is done. */
const growth = async (work) => {
  const before = memory()
  let most = before
  const watch = setInterval(() => {
    most = Math.max(most, memory())
  }, 50)
  await work()
  clearInterval(watch)
  return Math.max(0, most - before).toFixed(0)
}
const arriving = () =>
  new Promise((done, failed) => {
    const put = request(
      `${base}/api/recordings?fileName=large.mp4`,
      { method: 'PUT', headers: { Cookie: cookie, 'Content-Type': 'application/octet-stream', 'Content-Length': statSync(file).size } },
      (answer) => {
        answer.resume()
        answer.on('end', () => (answer.statusCode === 200 ? done() : failed(new Error(`upload: ${answer.statusCode}`))))
      },
    )
    put.on('error', failed)
    createReadStream(file).pipe(put)
  })
console.log(`1 GB brought in: the server's memory grew, MB|${await growth(arriving)}|100`)

// A package with 1 GB of video: the released file is given the same padding, and its package is made again.
const sql = (text) => askDatabase(port, text)
const [fileKey, packageKey, outlet] = sql(
  `select r."FileKey", r."PackageKey", o."Id" from "Releases" r join "Outlets" o on o."Id" = r."OutletId" where o."Kind" = 'learningSystem' and r."LessonId" = '${id}'`,
).split('|')
const derived = (key, name) => join(process.env.WEXEL_STATE, 'files', 'derived', key.slice(0, 2), key, name)
const video = openSync(derived(fileKey, 'lesson.mp4'), 'a')
writeSync(video, head)
for (let written = 8; written < padding; written += block.length) writeSync(video, block, 0, Math.min(block.length, padding - written))
const copying = performance.now()
execFileSync('dd', [`if=${derived(fileKey, 'lesson.mp4')}`, `of=${join(work, 'copy')}`, 'bs=1M', 'conv=fsync', 'status=none'])
const copied = performance.now() - copying
rmSync(derived(packageKey, 'package.zip'))
let packed = 0
const grown = await growth(async () => {
  const begun = performance.now()
  lesson.document.sections[1].title = sql(`select "Player"->'sections'->1->>'title' from "Releases" where "OutletId" = '${outlet}' and "LessonId" = '${id}'`)
  const now = await ask('GET', `/api/lessons/${id}`)
  await ask('PUT', `/api/lessons/${id}/document`, { basedOn: now.revision, document: lesson.document })
  await ask('POST', `/api/lessons/${id}/releases`, { outletId: outlet, profileId: 'web', visibility: 'withLink' })
  packed = performance.now() - begun
})
const size = statSync(derived(sql(`select "PackageKey" from "Releases" where "OutletId" = '${outlet}' and "LessonId" = '${id}'`), 'package.zip')).size
if (size < padding) throw new Error(`The package has ${size} bytes.`)
console.log(`A package with 1 GB of video / a plain copy of it to disk (${(copied / 1000).toFixed(1)} s)|${(packed / copied).toFixed(2)}|2`)
console.log(`The same: the server's memory grew, MB|${grown}|100`)

// A feed of 1,000 episodes: the demo's own, and one of them as often again as is lacking.
const feed = sql(`select f."OutletId", f."Token" from "PodcastFeeds" f limit 1`).split('|')
const last = 1010 - Number(sql(`select count(*) from "Releases" where "OutletId" = '${feed[0]}'`))
sql(`insert into "Lessons" select (jsonb_populate_record(null::"Lessons", to_jsonb(l) || jsonb_build_object('Id', md5('lesson' || n)::uuid, 'Position', n))).*
  from "Lessons" l, generate_series(11, ${last}) n where l."Id" = '${id}'`)
sql(`insert into "Releases" select (jsonb_populate_record(null::"Releases", to_jsonb(r) || jsonb_build_object('Id', md5('release' || n)::uuid, 'LessonId', md5('lesson' || n)::uuid, 'Token', 't' || n))).*
  from "Releases" r, generate_series(11, ${last}) n where r."LessonId" = '${id}' and r."OutletId" = '${feed[0]}'`)
const times = []
for (let i = 0; i < 21; i++) {
  const begun = performance.now()
  const text = await (await fetch(`${base}/feeds/${feed[1]}/feed.xml`)).text()
  times.push(performance.now() - begun)
  if (text.split('<item>').length !== 1001) throw new Error('The feed does not hold 1,000 episodes.')
}
// They are lessons that nobody made: what is measured next must not meet them.
sql(
  `delete from "Releases" where "Token" ~ '^t[0-9]+$'; delete from "Lessons" where "Position" between 11 and ${last} and not exists (select from "LessonRevisions" r where r."LessonId" = "Lessons"."Id")`,
)
console.log(`A feed of 1,000 episodes, milliseconds, the middle of 21|${times.sort((a, b) => a - b)[10].toFixed(0)}|100`)
