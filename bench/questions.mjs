// Measures what questions cost: the player's sizes, the first picture, a typo mended in one, results of many learners; on the running server. Prints lines of "what|value|budget".
import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import launch from '../demo/chromium.json' with { type: 'json' }
import { signIn, sql } from './client.mjs'
import { opened } from './picture.mjs'

const [port] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { ask, cookie } = await signIn(base)
const middle = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]
const wait = (ms) => new Promise((done) => setTimeout(done, ms))

const player = new URL('../artifacts/player/', import.meta.url)
const files = readdirSync(player).filter((name) => name.startsWith('wexel-') && !/\.(br|gz)$/.test(name))
const gzipped = (names) => names.reduce((sum, name) => sum + gzipSync(readFileSync(new URL(name, player))).length, 0)
const own = files.filter((name) => name.startsWith('wexel-player.'))
console.log(`The player without parts, script and styles gzipped, kB|${(gzipped(own) / 1000).toFixed(1)}|75`)
console.log(`The player with all parts, scripts and styles gzipped, kB|${(gzipped(files) / 1000).toFixed(1)}|95`)

// Twenty questions in a released lesson, and five thousand learners who answered them.
const [learners, questions] = [5000, 20]
const lesson = (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons).find((l) => l.releases.length > 0)
const places = (await ask('GET', `/api/lessons/${lesson.id}/releases`)).filter((o) => o.release).map((o) => o.id)
const asked = Array.from({ length: questions }, (_, i) => ({
  id: `q${i}`,
  at: 1000 + i * 1500,
  text: `Which lane is right for number ${i}?`,
  asks: { kind: 'one', shuffle: false, options: ['a', 'b', 'c', 'd'].map((id) => ({ id, text: `Lane ${id.toUpperCase()}`, right: id === 'b' })) },
  when: 'here',
  points: 1,
  must: false,
  tries: 1,
  penalty: 0,
  right: '',
  wrong: '',
  hints: [],
  again: null,
}))
const save = async (list) => {
  const now = await ask('GET', `/api/lessons/${lesson.id}`)
  await ask('PUT', `/api/lessons/${lesson.id}/document`, { basedOn: now.revision, document: { ...now.document, questions: list } })
}
const live = async () => {
  await ask('POST', '/api/releases', { wishes: places.map((outletId) => ({ lessonId: lesson.id, outletId })) })
  for (;;) {
    const now = (await ask('GET', `/api/lessons/${lesson.id}/releases`)).filter((o) => places.includes(o.id))
    const failed = now.find((o) => o.way?.phase === 'failed')
    if (failed) throw new Error(`${failed.name}: ${failed.way.problem.sentence}`)
    if (now.every((o) => o.release && !o.release.behind && (o.way === null || o.way.phase === 'live'))) return
    await wait(20)
  }
}
const link = (await ask('GET', `/api/lessons/${lesson.id}/releases`)).find((o) => o.kind === 'channel').release.link
const browser = await chromium.launch(launch)
/** How long until the first picture, in milliseconds: the middle of nine. */
const picture = async () => {
  const pictures = []
  for (let i = 0; i < 9; i++) {
    const one = await opened(browser, cookie, base, link)
    pictures.push(one.picture)
    await one.page.context().close()
  }
  return middle(pictures)
}
// In turn, since what else the machine does changes: without, with, and each once more.
const pictures = { without: [], with: [] }
for (const [which, list] of [
  ['without', []],
  ['with', asked],
  ['without', []],
  ['with', asked],
]) {
  await save(list)
  await live()
  pictures[which].push(await picture())
}
await browser.close()
const ratio = (Math.min(...pictures.with) / Math.min(...pictures.without)).toFixed(2)
console.log(`First picture with ${questions} questions against without, the better of two rounds each|${ratio}|1.10`)
const renditions = () => Number(sql(port, 'select count(*) from "Renditions"'))
const before = renditions()
const mended = []
for (let i = 0; i < 5; i++) {
  const begun = performance.now()
  await save(asked.map((q, n) => (n === 0 ? { ...q, text: `Which lane is right, mended for the ${i}. time?` } : q)))
  await live()
  mended.push((performance.now() - begun) / 1000)
}
console.log(`A typo mended in a question, and ${places.length} places true again, seconds, the middle of 5|${middle(mended).toFixed(2)}|2`)
console.log(`Renditions made for that|${renditions() - before}|0`)

sql(
  port,
  `
  insert into "LearnerRecords" select (jsonb_populate_record(null::"LearnerRecords", to_jsonb(l) || jsonb_build_object(
    'Id', gen_random_uuid(), 'LessonId', '${lesson.id}', 'LearnerKey', 'link-' || n, 'Name', 'Learner ' || n, 'Version', 3,
    'State', (jsonb_build_object('watched', l."State"::jsonb -> 'watched', 'again', '[]'::jsonb, 'position', l."State"::jsonb -> 'position', 'seenShare', 0.5, 'score', jsonb_build_object('raw', 10, 'max', ${questions}), 'answers',
      (select jsonb_agg(jsonb_build_object('question', 'q' || q, 'tries', 1, 'share', (hit = 1)::int, 'right', hit = 1, 'answer', jsonb_build_array(chr(97 + hit)),
         'at', '2026-11-30T10:00:00Z', 'first', jsonb_build_array(chr(97 + hit)), 'firstShare', (hit = 1)::int))
       from generate_series(0, ${questions - 1}) q, lateral (select ((hashtext(n || ' ' || q) & 1023) * 4 / 1024) as hit) h)))))).*
  from generate_series(1, ${learners}) n, (select * from "LearnerRecords" where "LessonId" = '${lesson.id}' limit 1) l
  on conflict do nothing;
  analyze "LearnerRecords";`,
)
const taken = []
for (let i = 0; i < 7; i++) {
  const begun = performance.now()
  const results = await ask('GET', `/api/lessons/${lesson.id}/results`)
  taken.push(performance.now() - begun)
  if (results.all < learners || results.questions.length !== questions)
    throw new Error(`Results of ${results.all} learners and ${results.questions.length} questions.`)
}
console.log(`Results of ${learners} learners by ${questions} questions, ms, the middle of 7|${middle(taken).toFixed(0)}|500`)
const pulses = []
for (let i = 0; i < 7; i++) {
  const begun = performance.now()
  const pulse = await ask('GET', `/api/lessons/${lesson.id}/results/pulse`)
  pulses.push(performance.now() - begun)
  if (pulse.learners < learners || pulse.steps[0].seen < learners)
    throw new Error(`A pulse of ${pulse.learners} learners, ${pulse.steps[0].seen} at the start.`)
}
console.log(`Where ${learners} learners leave and watch again, ms, the middle of 7|${middle(pulses).toFixed(0)}|500`)
