// Writes two lesson files of one recording: one with a camera small over all of it, one without. Usage: camera.mjs FOLDER
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'

const [folder] = process.argv.slice(2)
const lesson = { version: 9, title: 'Sale', language: 'en-GB', recordings: [{ file: 'screen.mp4' }] }
const look = {
  corner: 'bottomRight',
  widthPercent: 20,
  distancePercent: 2,
  roundedPercent: 20,
  part: { x: 0.125, y: 0, width: 0.75, height: 1 },
  keepsClear: false,
  usually: 'small',
}
writeFileSync(join(folder, 'without.wexel.json'), JSON.stringify(lesson))
writeFileSync(
  join(folder, 'with.wexel.json'),
  JSON.stringify({ ...lesson, cameras: [{ file: 'camera.mp4', over: 0, clock: { starts: -2400, drift: 0 } }], cameraLook: look }),
)
