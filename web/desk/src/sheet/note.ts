import type { ReactNode } from 'react'

/** Something that stands in the sheet where it begins: a move-in, a suggested cut, what is hard to read. What it is and how it looks is its own folder's. */
export interface SheetNote {
  key: string
  at: number
  /** About how high it is, in pixels, before it is measured. */
  px: number
  show: () => ReactNode
}
