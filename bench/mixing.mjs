// Writes two lesson files of one recording: one with two pieces of music under its voice, one without. Usage: mixing.mjs FOLDER
import { copyFileSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const [folder] = process.argv.slice(2)
const shipped = 'src/Wexel.Server/Sounds/Shipped'
const list = JSON.parse(readFileSync(join(shipped, 'sounds.json'), 'utf8'))
const laid = ['Morning tide', 'Night boat'].map((title, i) => {
  const { file, shelved } = list.find((s) => s.shelved.sound.title === title)
  copyFileSync(join(shipped, file), join(folder, 'sounds', shelved.sound.key))
  return {
    id: `s${i}`,
    span: { start: i * 40_000, end: 80_000 + i * 40_000 },
    sound: shelved.sound,
    fadeIn: 1000,
    fadeOut: 2000,
    apart: 20,
    duck: 10,
    attack: 300,
    release: 800,
    loops: true,
    endsAtBar: true,
  }
})
const lesson = { version: 9, title: 'Talk', language: 'en-GB', recordings: [{ file: 'talk.mkv' }] }
writeFileSync(join(folder, 'without.wexel.json'), JSON.stringify(lesson))
writeFileSync(join(folder, 'with.wexel.json'), JSON.stringify({ ...lesson, sounds: laid }))
