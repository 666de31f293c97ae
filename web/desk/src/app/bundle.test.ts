import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { expect, test } from 'vitest'

const built = new URL('../../../../artifacts/desk/', import.meta.url)
type Piece = { file: string; css?: string[]; imports?: string[] }
const pieces: Record<string, Piece> = JSON.parse(readFileSync(new URL('.vite/manifest.json', built), 'utf8'))

/** A view's name among the pieces; one that others take parts of stands under another. */
const pieceOf = (view: string) =>
  Object.keys(pieces).find((name) => name === `src/${view}.tsx` || pieces[name].file.includes(`/${view.split('/')[1]}-`)) ?? view

/** The files without which a piece does not begin. */
function needed(name: string, found = new Set<string>()): Set<string> {
  const { file, css = [], imports = [] } = pieces[name]
  for (const each of [file, ...css]) found.add(each)
  for (const each of imports) needed(each, found)
  return found
}

test('the first page is at most 150 kB gzipped: markup, style and scripts', () => {
  const files = new Set(['index.html', ...needed('index.html'), ...needed('src/lessons/Lessons.tsx')])
  const bytes = [...files].map((file) => gzipSync(readFileSync(new URL(file, built))).length).reduce((sum, one) => sum + one, 0)
  expect(bytes).toBeLessThanOrEqual(150_000)
})

test('each view is loaded when it is opened', () => {
  const first = needed('index.html')
  for (const view of ['lessons/LessonPage', 'board/Board', 'queue/Queue', 'results/Results', 'kit/Kit', 'account/Account'])
    expect([view, first.has(pieces[pieceOf(view)].file)]).toEqual([view, false])
})
