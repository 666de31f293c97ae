// Measures how quick lists are with a large library: prints lines of "what|value|budget", in milliseconds.
import { signIn, sql } from './client.mjs'

const [port] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { cookie, ask } = await signIn(base)
const [lessons, outlets, releases, records] = [1000, 8, 5000, 20_000]
const first = (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons).find((l) => l.releases.length > 0)
if (!first) throw new Error('No lesson of the demo is released.')

// Copies of a released lesson of the demo, each with its document, its page and its record as they are.
sql(
  port,
  `
  create temp table one as select * from "Lessons" where "Id" = '${first.id}';
  create temp table made as select gen_random_uuid() as id, n from generate_series(1, ${lessons} - (select count(*) from "Lessons")) n;
  insert into "Lessons" ("Id", "CourseId", "Position", "Revision", "Title", "Length", "ContentKey", "WantsMark", "RecordingHash")
    select made.id, one."CourseId", 1000 + n, 1, 'Lesson ' || n, one."Length", one."ContentKey" || n, one."WantsMark", one."RecordingHash" from made, one;
  insert into "LessonRevisions" ("LessonId", "Number", "Document", "Changes", "SavedBy", "SavedAt")
    select made.id, 1, r."Document", 'brought in', r."SavedBy", r."SavedAt" from made, "LessonRevisions" r, one where r."LessonId" = one."Id" and r."Number" = one."Revision";
  create temp table places as select gen_random_uuid() as id, n from generate_series(1, ${outlets} - (select count(*) from "Outlets")) n;
  insert into "Outlets" select (jsonb_populate_record(o, jsonb_build_object('Id', places.id, 'Name', 'Web server ' || places.n))).* from places, (select * from "Outlets" where "Kind" = 'webServer' limit 1) o;
  insert into "Releases" select (jsonb_populate_record(r, jsonb_build_object('Id', gen_random_uuid(), 'LessonId', made.id, 'OutletId', o."Id", 'Token', replace(gen_random_uuid()::text, '-', '')))).*
    from made join (select "Id", row_number() over (order by "Id") as k from "Outlets") o on (made.n + o.k) % 8 < 5
    cross join lateral (select * from "Releases" where "LessonId" = '${first.id}' limit 1) r
    limit ${releases} - (select count(*) from "Releases");
  insert into "LearnerRecords" select (jsonb_populate_record(l, jsonb_build_object('Id', gen_random_uuid(), 'LessonId', made.id, 'LearnerKey', 'link-' || k))).*
    from made cross join generate_series(1, 20) k cross join (select * from "LearnerRecords" limit 1) l limit ${records} - (select count(*) from "LearnerRecords");
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
const say = (what, value) => console.log(`${what}, with ${counted.split('|').join(' / ')} lessons / outlets / releases / records: ms|${value}|200`)
for (const [what, path] of [
  ['Lessons', '/api/lessons'],
  ['Board', '/api/board'],
  ['Channel', '/channel'],
  ['Results of a lesson', `/api/lessons/${first.id}/learners`],
])
  say(what, await milliseconds(get(path)))
let edit = 0
say(
  'Autosave',
  await milliseconds(async () => {
    const now = await ask('GET', `/api/lessons/${first.id}`)
    await ask('PUT', `/api/lessons/${first.id}/document`, { basedOn: now.revision, document: { ...now.document, description: `Edit ${edit++}` } })
  }),
)
say('Space', await milliseconds(get('/api/space'), 1))
