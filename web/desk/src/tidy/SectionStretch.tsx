import { useState } from 'react'
import { stretchOf } from '../contents/sections'
import type { Section } from '../lessons/useLesson'
import type { Cut } from '../sheet/blocks'
import { clock } from '../ui/words'

interface Props {
  sections: Section[]
  length: number
  setStretch: (stretch: Cut | undefined) => void
}

/** Selecting a whole section, or from one section to the end of another. */
export function SectionStretch({ sections, length, setStretch }: Props) {
  const [first, setFirst] = useState('')
  const [last, setLast] = useState('')
  const choose = (from: string, to: string) => {
    setFirst(from)
    setLast(to)
    const [a, b] = [stretchOf(sections, from, length), stretchOf(sections, to || from, length)]
    if (a && b) setStretch({ start: Math.min(a.start, b.start), end: Math.max(a.end, b.end) })
  }
  const list = (label: string, value: string, take: (id: string) => void) => (
    <label className="flex items-center gap-2">
      <span className="w-[92px] shrink-0 text-quiet">{label}</span>
      <select
        value={sections.some((s) => s.id === value) ? value : ''}
        onChange={(e) => take(e.target.value)}
        className="min-w-0 flex-1 border border-quiet/60 bg-field px-2 py-1"
      >
        <option value="">Choose one</option>
        {sections.map((s) => (
          <option key={s.id} value={s.id}>
            {clock(s.at)} {s.title}
          </option>
        ))}
      </select>
    </label>
  )
  return (
    <div className="mt-3 flex flex-col gap-1">
      {list('Or a section', first, (id) => choose(id, ''))}
      {first && list('to the end of', last || first, (id) => choose(first, id))}
    </div>
  )
}
