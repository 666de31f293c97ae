// Films the presenter of a recording: drawn frame by frame, she speaks when the recording speaks. What comes of it is what a camera in the room would have:
// it starts earlier, and its microphone hears the voice from farther away.
// Usage: node demo/film.mjs RECORDING CAMERA.mp4 SECONDS-EARLIER
import { execFileSync, spawn } from 'node:child_process'
import { once } from 'node:events'
import { dirname, join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { chromium } from '@playwright/test'
import launch from './chromium.json' with { type: 'json' }

const [recording, camera, earlier] = process.argv.slice(2)
const [rate, perSecond] = [8000, 25]
const sound = execFileSync('ffmpeg', ['-v', 'error', '-i', recording, '-map', '0:a:0', '-ac', '1', '-ar', String(rate), '-f', 's16le', '-'], {
  maxBuffer: 1 << 28,
})
const samples = new Int16Array(sound.buffer, sound.byteOffset, sound.length >> 1)
const lasts = Number(earlier) + samples.length / rate - 3
const loudAt = (second) => {
  const from = Math.floor(second * rate)
  if (from < 0) return 0
  let sum = 0
  for (let i = from; i < from + rate / perSecond && i < samples.length; i++) sum += samples[i] ** 2
  return Math.min(1, Math.sqrt((sum * perSecond) / rate) / 4500)
}

const encoder = spawn(
  'ffmpeg',
  [
    ['-v', 'error', '-y', '-f', 'image2pipe', '-framerate', String(perSecond), '-c:v', 'mjpeg', '-i', '-', '-i', recording],
    [
      '-filter_complex',
      `[1:a:0]highpass=f=180,volume=0.45,aecho=0.8:0.5:19|41:0.25|0.15,adelay=${Number(earlier) * 1000}:all=1[heard]`,
      '-map',
      '0:v',
      '-map',
      '[heard]',
    ],
    [
      '-vf',
      'scale=out_color_matrix=bt709:out_range=tv,format=yuv420p',
      '-colorspace',
      'bt709',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-color_range',
      'tv',
    ],
    ['-c:v', 'libx264', '-preset', 'slow', '-crf', '30', '-c:a', 'aac', '-b:a', '48k', '-ac', '1', '-t', String(lasts), '-movflags', '+faststart', camera],
  ].flat(),
  { stdio: ['pipe', 'inherit', 'inherit'] },
)
const browser = await chromium.launch(launch)
const page = await browser.newPage({ viewport: { width: 640, height: 480 } })
await page.goto(String(pathToFileURL(join(dirname(fileURLToPath(import.meta.url)), 'presenter.html'))))
let mouth = 0
for (let frame = 0; frame < lasts * perSecond; frame++) {
  const at = frame / perSecond
  mouth += (loudAt(at - Number(earlier)) - mouth) * 0.6
  await page.evaluate(([t, loud]) => draw(t, loud), [at, mouth])
  if (!encoder.stdin.write(await page.screenshot({ type: 'jpeg', quality: 92 }))) await once(encoder.stdin, 'drain')
}
encoder.stdin.end()
await browser.close()
await once(encoder, 'close')
