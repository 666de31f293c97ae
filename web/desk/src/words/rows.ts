import type { Schemas } from '../app/api'

/** A word of the house as it is typed: what it is heard as stands in one field, parted by commas. */
export interface Row {
  key: string
  written: string
  said: string
  heardAs: string
}

export const rowsOf = (list: Schemas['WordList']): Row[] =>
  list.words.map((w, i) => ({ key: `${i} ${w.written}`, written: w.written, said: w.said, heardAs: w.heardAs.join(', ') }))

const tidy = (text: string) => text.trim().replace(/\s+/g, ' ')

export const wordsOf = (rows: Row[]): Schemas['WordList'] => ({
  words: rows.map((r) => ({ written: tidy(r.written), said: tidy(r.said), heardAs: r.heardAs.split(',').map(tidy).filter(Boolean) })).filter((w) => w.written),
})
