import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { expect, test } from 'vitest'

const built = new URL('../../../artifacts/player/', import.meta.url)

test('the player is one script of at most 65 kB gzipped, and no module; what plays pieces lies beside it', () => {
  // The smaller forms are for web servers that know them.
  const whole = readdirSync(built).filter((name) => !/\.(br|gz)$/.test(name))
  expect(whole.sort()).toEqual(['fonts', 'hls.min.js', 'wexel-player.css', 'wexel-player.js'])
  const script = readFileSync(new URL('wexel-player.js', built))
  expect(gzipSync(script).length).toBeLessThanOrEqual(65_000)
  expect(script.toString()).not.toMatch(/\bimport\s*\(|^\s*import\s/m)
})

test('nothing is loaded from anywhere else', () => {
  expect(readFileSync(new URL('wexel-player.css', built), 'utf8')).not.toMatch(/url\((?!\.?\/?"?\.?\/?fonts\/|data:|fonts\/)/)
})
