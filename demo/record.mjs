import { execFileSync, spawn } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import launch from './chromium.json' with { type: 'json' }
import { lessons } from './lessons.mjs'

const here = dirname(fileURLToPath(import.meta.url))
const run = (file, args, input) => execFileSync(file, args, { input, stdio: [input ? 'pipe' : 'ignore', 'pipe', 'inherit'] })
const sleep = (ms) => new Promise((done) => setTimeout(done, ms))
const clock = (ms) => {
  const two = (n) => String(n).padStart(2, '0')
  return `${two(Math.floor(ms / 3600000))}:${two(Math.floor(ms / 60000) % 60)}:${two(Math.floor(ms / 1000) % 60)}.${String(ms % 1000).padStart(3, '0')}`
}

function speak(text, wav) {
  run('text2wave', ['-o', wav, '-eval', '(voice_cmu_us_slt_arctic_hts)'], text)
  return Number(run('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', wav]).toString()) * 1000
}

async function record(lesson, display) {
  const work = mkdtempSync(join(tmpdir(), 'wexel-demo-'))
  const [width, height] = lesson.size
  const spoken = lesson.sound !== 'none'
  const speech = lesson.steps.map((step, i) => (spoken && step.say ? speak(step.say, join(work, `${i}.wav`)) : 0))

  const server = spawn('Xvfb', [display, '-screen', '0', `${width}x${height}x24`, '-nolisten', 'tcp'], { stdio: 'ignore' })
  await sleep(1500)
  const address = `file://${join(here, 'desk', 'index.html')}?at=${lesson.at}`
  const browser = await chromium.launchPersistentContext(join(work, 'profile'), {
    executablePath: launch.executablePath,
    headless: false,
    viewport: null,
    env: { ...process.env, DISPLAY: display },
    ignoreDefaultArgs: ['--enable-automation', 'about:blank'],
    args: [...launch.args, '--kiosk', '--window-position=0,0', `--window-size=${width},${height}`, `--app=${address}`],
  })
  const page = browser.pages()[0]
  await page.waitForSelector('#sailings .sailing')
  await sleep(1500)

  const raw = join(work, 'screen.mkv')
  const grab = spawn(
    'ffmpeg',
    ['-v', 'error', '-y', '-f', 'x11grab', '-framerate', '30', '-video_size', `${width}x${height}`, '-i', display, '-c:v', 'libx264rgb', '-preset', 'ultrafast', '-qp', '0', raw],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  await sleep(1000)
  const began = Date.now()
  const placed = []
  for (const [i, step] of lesson.steps.entries()) {
    const at = Date.now() - began
    placed.push({ at, length: speech[i], step, i })
    if (step.do) await step.do(page)
    const left = at + speech[i] + step.hold * (lesson.pace ?? 1) * 1000 - (Date.now() - began)
    await sleep(Math.max(left, 400))
    console.error(`${lesson.id}: ${i + 1} of ${lesson.steps.length}, ${Math.round((Date.now() - began) / 1000)} s`)
  }
  const length = (Date.now() - began) / 1000
  grab.stdin.write('q')
  await new Promise((done) => grab.on('close', done))
  await browser.close()
  server.kill()

  // The grab began a little before the clock; what it has more than the clock stands at its start.
  const grabbed = Number(run('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', raw]).toString())
  const args = ['-v', 'error', '-y', '-ss', String(Math.max(0, grabbed - length)), '-i', raw]
  const said = placed.filter((p) => p.length > 0)
  if (spoken) {
    for (const p of said) args.push('-i', join(work, `${p.i}.wav`))
    const delayed = said.map((p, n) => `[${n + 1}:a]adelay=${Math.round(p.at)}:all=1[d${n}]`).join(';')
    args.push(
      '-filter_complex',
      `${delayed};${said.map((_, n) => `[d${n}]`).join('')}amix=inputs=${said.length}:normalize=0,apad=whole_dur=${length}[a]`,
      '-map',
      '0:v',
      '-map',
      '[a]',
    )
  }
  args.push(
    '-vf',
    'scale=out_color_matrix=bt709:out_range=tv:flags=accurate_rnd+full_chroma_int,format=yuv420p',
    '-r',
    '30',
    '-c:v',
    'libx264',
    '-preset',
    'slow',
    '-crf',
    '18',
    '-colorspace',
    'bt709',
    '-color_primaries',
    'bt709',
    '-color_trc',
    'bt709',
    '-color_range',
    'tv',
    '-t',
    String(length),
  )
  if (lesson.sound === 'mono') args.push('-c:a', 'aac', '-b:a', '64k', '-ac', '1', '-ar', '44100')
  if (lesson.sound === 'stereo') args.push('-c:a', 'aac', '-b:a', '96k', '-ac', '2', '-ar', '48000')
  if (lesson.sound === 'opus') args.push('-c:a', 'libopus', '-b:a', '18k', '-ac', '1')
  run('ffmpeg', [...args, '-map_metadata', '-1', join(here, 'recordings', lesson.file)])

  const name = lesson.id
  const ms = (p) => Math.round(p.at)
  const sections = placed.filter((p) => p.step.section)
  const contents = sections.map((p, n) => `${p.step.under ? '  ' : ''}${clock(n === 0 ? 0 : ms(p))} ${p.step.section}`)
  if (lesson.words) {
    writeFileSync(join(here, 'recordings', `${name}.contents.txt`), `${contents.join('\n')}\n`)
    const cues = said.map((p) => `${clock(ms(p))} --> ${clock(Math.round(p.at + p.length))}\n${p.step.say}\n`)
    writeFileSync(join(here, 'recordings', `${name}.en.vtt`), `WEBVTT\n\n${cues.join('\n')}`)
  }
  rmSync(work, { recursive: true })
}

const wanted = process.argv.slice(2)
for (const lesson of lessons) if (wanted.length === 0 || wanted.includes(lesson.id)) await record(lesson, `:${90 + lessons.indexOf(lesson)}`)
