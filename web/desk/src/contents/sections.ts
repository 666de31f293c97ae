import type { Section } from '../lessons/useLesson'
import type { Cut } from '../sheet/blocks'

/** Where a section starts and ends: one that is not nested covers those under it. */
export function stretchOf(sections: Section[], id: string, length: number): Cut | undefined {
  const index = sections.findIndex((s) => s.id === id)
  if (index < 0) return undefined
  const { at, nested } = sections[index]
  return { start: at, end: sections.slice(index + 1).find((s) => nested || !s.nested)?.at ?? length }
}

/** 1, 2, 2.1, 2.2, 3 … */
export function numbersOf(sections: Section[]): string[] {
  let [main, sub] = [0, 0]
  return sections.map((section) => {
    if (section.nested) return `${main}.${++sub}`
    sub = 0
    return `${++main}`
  })
}
