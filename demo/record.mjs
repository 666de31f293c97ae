// Plays the lessons on the desk program frame by frame, and writes each as a recording, with what is said, and its contents and captions.
// Nothing depends on how quick this machine is: time passes only where a step says so, and a picture is taken only when something changed.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { parseArgs } from 'node:util'
import { chromium } from '@playwright/test'
import launch from './chromium.json' with { type: 'json' }
import { Stage } from './stage.mjs'

const here = dirname(fileURLToPath(import.meta.url))
const { values: given, positionals: wanted } = parseArgs({
  allowPositionals: true,
  options: { lessons: { type: 'string' }, to: { type: 'string' }, unfilmed: { type: 'boolean' } },
})
const recordings = resolve(given.to ?? join(here, 'recordings'))
const filmed = !given.unfilmed
const { courses } = await import(pathToFileURL(resolve(given.lessons ?? join(here, 'lessons/index.mjs'))))
const run = (file, args, input) => execFileSync(file, args, { input, stdio: [input ? 'pipe' : 'ignore', 'pipe', 'inherit'] })
const voices = { mara: '(voice_cmu_us_slt_arctic_hts)', tam: '(voice_kal_diphone)' }

const two = (n) => String(n).padStart(2, '0')
const clock = (ms) =>
  `${two(Math.floor(ms / 3600000))}:${two(Math.floor(ms / 60000) % 60)}:${two(Math.floor(ms / 1000) % 60)}.${String(ms % 1000).padStart(3, '0')}`
const brief = (ms) => `${Math.floor(ms / 60000)}:${two(Math.floor(ms / 1000) % 60)}`

function speak(text, voice, wav) {
  run('text2wave', ['-o', wav, '-eval', voices[voice]], text)
  return Number(run('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', wav]).toString()) * 1000
}

const sounds = {
  mono: ['-c:a', 'aac', '-b:a', '64k', '-ac', '1', '-ar', '44100'],
  stereo: ['-c:a', 'aac', '-b:a', '96k', '-ac', '2', '-ar', '48000'],
  opus: ['-c:a', 'libopus', '-b:a', '18k', '-ac', '1'],
}
const colours = 'scale=out_color_matrix=bt709:out_range=tv:flags=accurate_rnd+full_chroma_int,format=yuv420p'
const tags = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv']

/** What was true while it was played: its contents by hand, and when the page on the screen was another. */
function writeTruth(lesson, stage, placed) {
  const contents = placed.filter((p) => p.step.section).map((p, n) => `${p.step.under ? '  ' : ''}${clock(n === 0 ? 0 : Math.round(p.at))} ${p.step.section}`)
  writeFileSync(join(recordings, `${lesson.id}.contents.txt`), `${contents.join('\n')}\n`)
  writeFileSync(join(recordings, `${lesson.id}.pages.txt`), `${stage.pages.map((p) => `${clock(Math.round(p.at))} ${p.heading}`).join('\n')}\n`)
}

async function record(browser, lesson) {
  const work = mkdtempSync(join(tmpdir(), 'wexel-demo-'))
  const [width, height] = lesson.size
  // Larger screens show the same, larger, as people set them.
  const scale = width / 1280
  const page = await (await browser.newContext({ viewport: { width: 1280, height: height / scale }, deviceScaleFactor: scale })).newPage()
  const asked = new URLSearchParams({
    at: lesson.at,
    ...(lesson.clock && { clock: lesson.clock }),
    ...(lesson.dark && { dark: '' }),
    ...(lesson.wind && { wind: '' }),
  })
  // Served from the folder itself: a browser loads no modules from files.
  await page.route('http://desk.example/**', (route) =>
    route.fulfill({ path: join(here, 'desk', new URL(route.request().url()).pathname.slice(1) || 'index.html') }),
  )
  await page.goto(`http://desk.example/?${asked}`)
  await page.waitForFunction(() => window.desk)
  const stage = await Stage.open(page, work, lesson.id, filmed)
  const placed = []
  for (const [i, step] of lesson.steps.entries()) {
    const at = stage.now
    const wav = join(work, `${i}.wav`)
    const length = lesson.voice && step.say ? speak(step.say, lesson.voice, wav) : 0
    placed.push({ at, length, step, wav })
    for (const act of step.do ?? []) await act(stage)
    await stage.until(at + length)
    await stage.wait(step.hold * (lesson.pace ?? 1) * 1000)
  }
  writeTruth(lesson, stage, placed)
  if (filmed) film(lesson, stage, placed)
  await page.context().close()
  rmSync(work, { recursive: true })
  console.error(`${lesson.id}: ${brief(stage.now)}, ${stage.pictures} pictures`)
  return brief(stage.now)
}

/** Makes the recording of what was played. */
function film(lesson, stage, placed) {
  const [width, height] = lesson.size
  const seconds = String(stage.now / 1000)
  const said = placed.filter((p) => p.length > 0)
  const delayed = said.map((p, n) => `[${n + 1}:a]aresample=48000,adelay=${Math.round(p.at)}:all=1[d${n}]`)
  const mixed = `${said.map((_, n) => `[d${n}]`).join('')}amix=inputs=${said.length}:normalize=0,apad=whole_dur=${seconds}[a]`
  run('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'concat', '-safe', '0', '-i', stage.film()],
    ...said.flatMap((p) => ['-i', p.wav]),
    ...(said.length > 0 ? ['-filter_complex', [...delayed, mixed].join(';'), '-map', '0:v', '-map', '[a]', ...sounds[lesson.sound]] : []),
    ...['-vf', `${colours},fps=30`, '-c:v', 'libx264', '-preset', 'slow', '-crf', '20', ...tags, '-t', seconds, '-map_metadata', '-1'],
    join(recordings, lesson.file),
  ])
  const seen = run('ffprobe', [
    '-v',
    'error',
    '-select_streams',
    'v:0',
    '-show_entries',
    'stream=width,height',
    '-of',
    'csv=s=x:p=0',
    join(recordings, lesson.file),
  ])
  if (seen.toString().trim() !== `${width}x${height}`) throw new Error(`${lesson.file} is ${seen.toString().trim()}, not ${width}x${height}`)
  if (lesson.words) {
    const cues = said.map((p) => `${clock(Math.round(p.at))} --> ${clock(Math.round(p.at + p.length))}\n${p.step.say}\n`)
    writeFileSync(join(recordings, `${lesson.id}.en.vtt`), `WEBVTT\n\n${cues.join('\n')}`)
  }
}

// What the demo is seeded from; a lesson that is not recorded now keeps its length, and each what is said of it there alone.
const listed = join(here, 'lessons.json')
const before = JSON.parse(readFileSync(listed, 'utf8'))
const browser = await chromium.launch(launch)
const lessons = []
for (const course of courses)
  for (const lesson of course.lessons) {
    const { id, file, title, description, words, released } = lesson
    const known = before.find((l) => l.title === title)
    const length = wanted.length === 0 || wanted.includes(id) ? await record(browser, lesson) : (known?.length ?? '0:00')
    const { marks, opening, details, camera } = known ?? {}
    lessons.push({
      course: course.title,
      file,
      title,
      length,
      description,
      ...(words && { contents: `${id}.contents.txt`, captions: `${id}.en.vtt` }),
      marks,
      released,
      opening,
      details,
      camera,
    })
  }
await browser.close()
if (!given.lessons) writeFileSync(listed, `[\n${lessons.map((l) => `  ${JSON.stringify(l)}`).join(',\n')}\n]\n`)
