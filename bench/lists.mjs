// Measures how quick lists are with a large library: prints lines of "what|value|budget", in milliseconds.
import { chromium } from '@playwright/test'
import launch from '../demo/chromium.json' with { type: 'json' }
import { signIn, sql } from './client.mjs'

const [port] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { cookie, ask } = await signIn(base)
const [lessons, outlets, releases, records] = [1000, 8, 5000, 20_000]
const first = (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons).find((l) => l.releases.length > 0)
if (!first) throw new Error('No lesson of the demo is released.')

// Copies of a released lesson of the demo, each with its document, its page and its record as they are.
const copy = (table, from, changes) =>
  `insert into "${table}" select (jsonb_populate_record(null::"${table}", to_jsonb(${from}) || jsonb_build_object(${changes}))).*`
const missing = (table, many) => `${many} - (select count(*) from "${table}")`
sql(
  port,
  `
  create temp table one as select * from "Lessons" where "Id" = '${first.id}';
  create temp table made as select gen_random_uuid() as id, n from generate_series(1, ${missing('Lessons', lessons)}) n;
  ${copy('Lessons', 'one', `'Id', made.id, 'Position', 1000 + n, 'Revision', 1, 'Title', 'Lesson ' || n`)} from made, one;
  ${copy('LessonRevisions', 'r', `'LessonId', made.id, 'Number', 1`)}
    from made, one join "LessonRevisions" r on r."LessonId" = one."Id" and r."Number" = one."Revision";
  ${copy('Outlets', 'o', `'Id', gen_random_uuid(), 'Name', 'Web server ' || n`)}
    from generate_series(1, ${missing('Outlets', outlets)}) n, (select * from "Outlets" where "Kind" = 'webServer' limit 1) o;
  ${copy('Releases', 'r', `'Id', gen_random_uuid(), 'LessonId', made.id, 'OutletId', o."Id", 'Token', replace(gen_random_uuid()::text, '-', '')`)}
    from made join (select "Id", row_number() over (order by "Id") as k from "Outlets") o on (made.n + o.k) % 8 <= 5,
    (select * from "Releases" where "LessonId" = '${first.id}' limit 1) r
    limit ${missing('Releases', releases)};
  ${copy('LearnerRecords', 'l', `'Id', gen_random_uuid(), 'LessonId', made.id, 'LearnerKey', 'link-' || k`)}
    from made, generate_series(1, 21) k, (select * from "LearnerRecords" limit 1) l
    limit ${missing('LearnerRecords', records)};
  analyze;`,
)
const counted = sql(
  port,
  'select (select count(*) from "Lessons"), (select count(*) from "Outlets"), (select count(*) from "Releases"), (select count(*) from "LearnerRecords")',
)

const middle = (numbers) => numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)]
async function milliseconds(work, times = 7) {
  await work()
  const taken = []
  for (let i = 0; i < times; i++) {
    const begun = performance.now()
    await work()
    taken.push(performance.now() - begun)
  }
  return middle(taken).toFixed(0)
}
const get = (path) => async () => {
  const answer = await fetch(base + path, { headers: { Cookie: cookie } })
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
  return (await answer.arrayBuffer()).byteLength
}
const say = (what, value, budget = 200, unit = 'ms') =>
  console.log(`${what}, with ${counted.split('|').join(' / ')} lessons / outlets / releases / records: ${unit}|${value}|${budget}`)
// What new lessons would be made into is reckoned when somebody first asks.
const begun = performance.now()
await get('/api/space')()
say('Space, the first time', (performance.now() - begun).toFixed(0), 2_000)
for (const [what, path] of [
  ['Lessons', '/api/lessons'],
  ['Board', '/api/board'],
  ['Channel', '/channel'],
  ['Results of a lesson', `/api/lessons/${first.id}/results`],
  ['Space', '/api/space'],
  ['Search', '/api/search?words=desk'],
])
  say(what, await milliseconds(get(path)))
// The board as somebody sees it: from the address to rows that can be read, and how much of it a screen more of scrolling costs.
const browser = await chromium.launch(launch)
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
const [name, value] = cookie.split('=')
await context.addCookies([{ name, value, url: base }])
const page = await context.newPage()
const opened = async () => {
  await page.goto(`${base}/board`)
  await page.getByRole('gridcell').nth(20).waitFor()
}
say('Board, the page with its rows', await milliseconds(opened, 5), 1_000)
// Frames that reach the screen while somebody scrolls by a wheel, 1,500 px a second for two seconds, of those that a page draws that has nothing on it.
const devtools = await context.newCDPSession(page)
async function drawn(selector) {
  const seen = []
  const collect = ({ value }) => seen.push(...value)
  devtools.on('Tracing.dataCollected', collect)
  await devtools.send('Tracing.start', { transferMode: 'ReportEvents', traceConfig: { includedCategories: ['benchmark'] } })
  const { x, y, height } = await page.locator(selector).boundingBox()
  const scroll = { x: x + 300, y: y + height / 2, yDistance: -3000, speed: 1500, gestureSourceType: 'mouse', preventFling: true }
  await devtools.send('Input.synthesizeScrollGesture', scroll)
  const ended = new Promise((done) => devtools.once('Tracing.tracingComplete', done))
  await devtools.send('Tracing.end')
  await ended
  devtools.off('Tracing.dataCollected', collect)
  return seen.filter((e) => e.name === 'DirectRenderer::DrawFrame').length
}
const board = []
for (let i = 0; i < 3; i++) board.push(await drawn('[role=grid]'))
await page.setContent('<div id="plain" style="height:600px;overflow:auto"><div style="height:60000px">Nothing</div></div>')
const plain = []
for (let i = 0; i < 3; i++) plain.push(await drawn('#plain'))
const dropped = Math.max(0, 100 - (100 * middle(board)) / middle(plain))
say('Board, frames dropped while it is scrolled, of those that an empty page draws', dropped.toFixed(0), 5, '%')
await browser.close()
let edit = 0
say(
  'Autosave',
  await milliseconds(async () => {
    const now = await ask('GET', `/api/lessons/${first.id}`)
    await ask('PUT', `/api/lessons/${first.id}/document`, { basedOn: now.revision, document: { ...now.document, description: `Edit ${edit++}` } })
  }),
)
