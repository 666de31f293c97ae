// Measures how quickly learners find what is said in a large library: prints lines of "what|value|budget", in milliseconds.
import { signIn, sql } from './client.mjs'

const [port] = process.argv.slice(2)
const base = `http://127.0.0.1:${port}`
const { ask } = await signIn(base)
const lessons = 10_000
const first = (await ask('GET', '/api/lessons')).flatMap((c) => c.lessons).find((l) => l.releases.length > 0)
if (!first) throw new Error('No lesson of the demo is released.')

// Words that stand in some lessons, a few in many and most in few, as in any language (Zipf): 40 captions of 8 words a lesson.
const words = "(array['ferry','ticket','refund','sailing','vehicle','float','till','quay','deck','crew'])[1 + floor(10 * random() ^ 2)]"
const made = "substr(translate(md5((floor(5000 * random() ^ 3))::text), '0123456789', 'aeiourstln'), 1, 7)"
// The record is made once and then taken apart, not once for each of its columns.
const copy = (table, from, changes, of) =>
  `insert into "${table}" select (row).* from (
    select jsonb_populate_record(null::"${table}", to_jsonb(${from}) || jsonb_build_object(${changes})) as row from ${of} offset 0) r`
sql(
  port,
  `
  create temp table one as select * from "Releases" r where "LessonId" = '${first.id}' and exists
    (select 1 from "Outlets" o where o."Id" = r."OutletId" and o."Kind" = 'channel') limit 1;
  create temp table made as
    select gen_random_uuid() as id, n, (
      select jsonb_agg(jsonb_build_object('span', jsonb_build_object('start', k * 4000, 'end', k * 4000 + 3500), 'id', 'c' || k, 'text', said))
      from generate_series(0, 39) k, lateral (
        select string_agg(case when w % 4 = 0 then ${words} else ${made} end, ' ') as said from generate_series(1, 8) w where k + n > 0) s
    ) as cues from generate_series(1, ${lessons}) n;
  ${copy('Lessons', 'l', `'Id', made.id, 'Position', 10000 + n, 'Title', 'Lesson ' || n`, `made, "Lessons" l where l."Id" = '${first.id}'`)};
  ${copy(
    'Releases',
    'one',
    `'Id', made.id, 'LessonId', made.id, 'Token', replace(made.id::text, '-', ''), 'Player', one."Player"
     || jsonb_build_object('title', 'Lesson ' || n, 'captions',
       jsonb_build_array(jsonb_build_object('language', 'en-GB', 'kind', 'captions', 'cues', cues)))`,
    'made, one',
  )};
  analyze;`,
)
const ready = () =>
  Number(
    sql(
      port,
      'select count(*) from "Releases" r join "Outlets" o on o."Id" = r."OutletId" and o."Kind" = \'channel\' where not exists (select 1 from "ReleasedTexts" t where t."ReleaseId" = r."Id")',
    ),
  )
const begun = performance.now()
while (ready() > 0) await fetch(`${base}/search?q=nothing`)
const indexed = (performance.now() - begun) / 1000
sql(port, 'analyze')
const rare = sql(
  port,
  'select word from ts_stat(\'select "Stems" from "ReleasedTexts"\') where ndoc between 5 and 30 and length(word) = 7 order by word limit 1',
).trim()

const middle = (numbers) => numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)]
async function milliseconds(typed, times = 9) {
  const taken = []
  for (let i = 0; i <= times; i++) {
    const from = performance.now()
    const answer = await fetch(`${base}/search?q=${encodeURIComponent(typed)}`)
    const page = await answer.text()
    if (!answer.ok || !page.includes('class="found"')) throw new Error(`${typed}: ${answer.status}`)
    if (i > 0) taken.push(performance.now() - from)
  }
  return middle(taken).toFixed(0)
}
for (const [what, typed] of [
  ['a word of a few lessons', rare],
  ['a word of most lessons', 'ferry'],
  ['three words of many', 'ferry refund sailing'],
  ['a slip of the pen', 'refnud'],
])
  console.log(`Learners search ${lessons} lessons for ${what}: ms|${await milliseconds(typed)}|150`)
console.log(`Bringing ${lessons} lessons into what is searched, once: s|${indexed.toFixed(0)}|300`)
