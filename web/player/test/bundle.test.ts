import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { expect, test } from 'vitest'

const built = new URL('../../../artifacts/player/', import.meta.url)

const gzipped = (...names: string[]) => names.reduce((sum, name) => sum + gzipSync(readFileSync(new URL(name, built))).length, 0)
const parts = {
  contents: ['wexel-contents.js'],
  captions: ['wexel-captions.js'],
  questions: ['wexel-questions.css', 'wexel-questions.js'],
  overlays: ['wexel-overlays.css', 'wexel-overlays.js'],
  survey: ['wexel-survey.css', 'wexel-survey.js'],
  scorm12: ['wexel-scorm12.js'],
}
const own = ['wexel-player.css', 'wexel-player.js']

test('the player is one script and no module; what only some lessons need lies beside it', () => {
  // The smaller forms are for web servers that know them.
  const whole = readdirSync(built).filter((name) => !/\.(br|gz)$/.test(name))
  expect(whole.sort()).toEqual(['fonts', 'hls.min.js', ...[...own, ...Object.values(parts).flat()].sort()])
  for (const name of whole.filter((name) => name.startsWith('wexel') && name.endsWith('.js')))
    expect(readFileSync(new URL(name, built), 'utf8')).not.toMatch(/\bimport\s*\(|^\s*import\s/m)
})

test('without parts it is at most 75 kB gzipped, with all of them 95 kB', () => {
  expect(gzipped(...own)).toBeLessThanOrEqual(75_000)
  expect(gzipped(...own, ...Object.values(parts).flat())).toBeLessThanOrEqual(95_000)
})

test('nothing is loaded from anywhere else', () => {
  expect(readFileSync(new URL('wexel-player.css', built), 'utf8')).not.toMatch(/url\((?!\.?\/?"?\.?\/?fonts\/|data:|fonts\/)/)
})
