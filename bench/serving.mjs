// Measures how the running server serves learners: prints lines of "what|value|budget".
import { execFileSync, spawn } from 'node:child_process'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { join } from 'node:path'
import { signIn, sql } from './client.mjs'

const [port, work] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { ask } = await signIn(base)
const middle = (numbers) => numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)]
const wait = (ms) => new Promise((done) => setTimeout(done, ms))

/** A lesson that everybody may see, and its file. */
async function released() {
  for (const { id } of (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons)) {
    const { kind, release } = (await ask('GET', `/api/lessons/${id}/releases`)).find((o) => o.kind === 'channel')
    if (kind === 'channel' && release?.visibility === 'everybody') return new URL(release.link).pathname
  }
  throw new Error('No lesson is released to everybody.')
}
const path = await released()

// 200 learners for a minute: each opens the page, plays on in pieces of 64 kB every two seconds, and reports every ten, as the player does.
const learners = 200
const seconds = 60
const agent = new Agent({ keepAlive: true, maxSockets: learners })
const taken = []
const failed = []
function send(method, address, { headers = {}, body, want = [200, 206, 304] } = {}) {
  return new Promise((done) => {
    const begun = performance.now()
    const ended = (status, text) => {
      taken.push(performance.now() - begun)
      if (!want.includes(status)) failed.push(`${method} ${address}: ${status}`)
      done(text)
    }
    const asked = request(
      `${base}${address}`,
      { method, agent, headers: body ? { ...headers, 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) } : headers },
      (answer) => {
        const parts = []
        answer.on('data', (part) => parts.push(part))
        answer.on('end', () => ended(answer.statusCode, Buffer.concat(parts).toString()))
        answer.on('error', (fault) => ended(String(fault)))
      },
    )
    asked.on('error', (fault) => ended(String(fault)))
    asked.end(body)
  })
}
const bytes = Number((await fetch(`${base}${path}/video.mp4`, { method: 'HEAD' })).headers.get('content-length'))
async function learn(n, until) {
  await wait((n / learners) * 10_000)
  const learner = `bench-${process.pid}-${n}`
  await send('GET', path)
  for (const file of ['/player/wexel-player.js', '/player/wexel-player.css']) await send('GET', file, { headers: { 'Accept-Encoding': 'br' } })
  const { opened } = JSON.parse(await send('GET', `${path}/progress?learner=${learner}`))
  const began = performance.now()
  for (let turn = 1; performance.now() < until; turn++) {
    await wait(2000)
    const from = (turn * 65_536) % Math.max(1, bytes - 65_536)
    await send('GET', `${path}/video.mp4`, { headers: { Range: `bytes=${from}-${from + 65_535}` } })
    const seen = Math.floor(performance.now() - began)
    if (turn % 5 === 0) await send('POST', `${path}/progress`, { body: JSON.stringify({ learner, watched: [[0, seen]], position: seen, opened }) })
  }
}
const until = performance.now() + seconds * 1000
await Promise.all(Array.from({ length: learners }, (_, n) => learn(n, until)))
agent.destroy()
for (const fault of failed.slice(0, 5)) console.error(fault)
taken.sort((a, b) => a - b)
console.log(`200 learners for a minute: of ${taken.length} requests, failed|${failed.length}|0`)
console.log(
  `The same: 95 of 100 are answered within, milliseconds (the middle one ${taken[Math.floor(taken.length / 2)].toFixed(1)})|${taken[Math.floor(taken.length * 0.95)].toFixed(1)}|200`,
)

// Pieces of 64 kB of a released file, 50 at once: nginx with the file itself, Wexel alone, and nginx in front of Wexel as ops/nginx.conf has it.
const state = process.env.WEXEL_STATE
const [direct, behind] = [Number(port) + 5, Number(port) + 6]
const home = join(work, 'nginx')
mkdirSync(home)
const example = readFileSync('ops/nginx.conf', 'utf8')
  .replace('listen 443 ssl http2', `listen 127.0.0.1:${behind}`)
  .replace(/^\s*ssl_.*$/gm, '')
  .replace('127.0.0.1:5080', `127.0.0.1:${port}`)
  .replace('/var/lib/wexel/STATE/files', `${state}/files`)
  .replace(/server \{\s*listen 80;[\s\S]*$/, '')
const key = sql(port, `select "FileKey" from "Releases" where "Token" = '${path.split('/')[2]}'`)
const paths = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map((name) => `${name}_temp_path ${home}/${name};`).join(' ')
writeFileSync(
  join(home, 'nginx.conf'),
  `daemon off; worker_processes auto; pid ${home}/pid; user ${process.getuid() === 0 ? 'root' : process.env.USER};
events { worker_connections 1024; }
http { access_log off; sendfile on; ${paths}
server { listen 127.0.0.1:${direct}; location / { alias ${state}/files/derived/${key.slice(0, 2)}/${key}/; } }
${example} }`,
)
const nginx = spawn('nginx', ['-c', join(home, 'nginx.conf'), '-e', join(home, 'error.log')], { stdio: 'inherit' })
await wait(1000)
/** Pieces a second. */
const pieces = (address) => {
  const said = execFileSync('wrk', ['-t1', '-c50', '-d5s', '-H', 'Range: bytes=65536-131071', address]).toString()
  if (/Non-2xx/.test(said)) throw new Error(`${address}: ${said}`)
  return Number(/Requests\/sec:\s+([\d.]+)/.exec(said)[1])
}
const seen = { file: [], alone: [], behind: [] }
try {
  for (let round = 0; round < 5; round++) {
    seen.file.push(pieces(`http://127.0.0.1:${direct}/lesson.mp4`))
    seen.alone.push(pieces(`${base}${path}/video.mp4`))
    seen.behind.push(pieces(`http://127.0.0.1:${behind}${path}/video.mp4`))
  }
} finally {
  nginx.kill()
}
const [file, alone, front] = [middle(seen.file), middle(seen.alone), middle(seen.behind)]
const round = (n) => n.toFixed(0)
console.log(
  `Pieces of 64 kB, 50 at once: Wexel alone / nginx with the same file (${round(alone)} / ${round(file)} a second)|${(alone / file).toFixed(3)}|>=0.2`,
)
console.log(`The same: Wexel behind nginx / nginx with the same file (${round(front)} / ${round(file)} a second)|${(front / file).toFixed(3)}|>=0.5`)
