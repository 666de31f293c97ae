import type { ReactNode } from 'react'

/** Something that stands in the sheet where it begins. What it is and how it looks is its own folder's; `lessons/useInSheet` lists them. */
export type SheetThing = Heading | Said | Below

interface Thing {
  key: string
  at: number
  /** About how much higher it makes its row, in pixels, before it is measured. */
  px: number
  /** @param struck Whether it lies in what is cut. */
  show: (struck: boolean) => ReactNode
}

/** A row begins with it. */
export interface Heading extends Thing {
  place: 'heading'
}

/** Among what is said in its row. */
export interface Said extends Thing {
  place: 'said'
  /** What there is room for where the whole lesson stands on one screen. */
  text: string
}

/** Below the picture and the words of its row. */
export interface Below extends Thing {
  place: 'below'
}

/** What the sheet is looked at for. */
export interface Looking {
  stage: string
  selected: string | undefined
  select: (id: string | undefined) => void
}
