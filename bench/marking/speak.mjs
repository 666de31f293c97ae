// Speaks ten minutes of what the demo's lessons say with festival, and writes down when each word is spoken: the truth for what is heard.
// Usage: node bench/marking/speak.mjs FOLDER
import { execFileSync } from 'node:child_process'
import { mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { courses as demo } from '../../demo/lessons/index.mjs'
import { courses as made } from './lessons.mjs'

const folder = process.argv[2]
const gap = 0.45
mkdirSync(folder, { recursive: true })
const said = [...new Set([...demo, ...made].flatMap((c) => c.lessons.flatMap((l) => l.steps.map((s) => s.say).filter(Boolean))))]
const quoted = (text) => `"${text.replaceAll('’', "'").replaceAll('"', '')}"`
const scheme = [
  '(voice_cmu_us_slt_arctic_hts)',
  '(define (speak text file) (let ((utt (SynthText text))) (utt.save.wave utt file (quote riff)) (format t "S %s\\n" file)' +
    ' (mapcar (lambda (w) (format t "W %s %f %f\\n" (item.name w) (item.feat w "word_start") (item.feat w "word_end"))) (utt.relation.items utt (quote Word)))))',
  ...said.map((text, i) => `(speak ${quoted(text)} "${join(folder, `${i}.wav`)}")`),
]
writeFileSync(join(folder, 'speak.scm'), scheme.join('\n'))
const printed = execFileSync('festival', ['-b', join(folder, 'speak.scm')], { encoding: 'utf8', maxBuffer: 1 << 26 })
const seconds = (file) => Number(execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', file]).toString())
const words = []
const files = []
let start = gap
let length = 0
for (const line of printed.split('\n')) {
  const [what, ...rest] = line.split(' ')
  if (what === 'S') {
    if (files.length > 0) start += length + gap
    length = seconds(rest[0])
    if (start + length > 600) break
    files.push(rest[0])
  } else if (what === 'W') words.push(`${(start + Number(rest[1])).toFixed(3)} ${(start + Number(rest[2])).toFixed(3)} ${rest[0]}`)
}
writeFileSync(join(folder, 'spoken.words.txt'), `${words.join('\n')}\n`)
writeFileSync(join(folder, 'spoken.txt'), `${said.slice(0, files.length).join('\n\n')}\n`)
// Sound without gaps in its times: each sentence is led by the same silence.
const list = files.flatMap((file) => [`file '${join(folder, 'gap.wav')}'`, `file '${file}'`])
execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', files[0], '-af', `volume=0,apad=whole_dur=${gap},atrim=0:${gap}`, join(folder, 'gap.wav')])
writeFileSync(join(folder, 'list.txt'), `ffconcat version 1.0\n${list.join('\n')}\n`)
execFileSync('ffmpeg', [
  ...['-v', 'error', '-y', '-f', 'concat', '-safe', '0', '-i', join(folder, 'list.txt'), '-f', 'lavfi', '-i', 'color=s=320x180:r=5'],
  ...['-map', '1:v', '-map', '0:a', '-c:v', 'libx264', '-preset', 'ultrafast', '-c:a', 'flac', '-shortest', join(folder, 'spoken.mkv')],
])
for (const file of files) rmSync(file)
