import { useState } from 'react'
import type { Document, Section } from '../lessons/useLesson'
import type { Playback } from '../sheet/usePlayback'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { clock, exactClock, timeOf } from '../ui/words'

interface Props {
  section: Section
  length: number
  first: boolean
  playback: Playback
  edit: (change: (d: Document) => Document) => void
  select: (id: string | undefined) => void
}

/** What can be done with the selected section. */
export function SelectedSection({ section, length, first, playback, edit, select }: Props) {
  const [typed, setTyped] = useState(exactClock(section.at))
  const [problem, setProblem] = useState('')
  const change = (to: Partial<Section>) =>
    edit((d) => ({ ...d, sections: d.sections.map((s) => (s.id === section.id ? { ...s, ...to } : s)).sort((a, b) => a.at - b.at) }))
  const move = (at: number) => {
    if (at >= length) return setProblem(`The lesson ends at ${clock(length)}.`)
    setProblem('')
    setTyped(exactClock(at))
    change({ at })
  }
  const moveToTyped = () => {
    const ms = timeOf(typed)
    if (ms === undefined) return setProblem('Write minutes:seconds, such as 1:05.')
    if (ms !== section.at) move(ms)
  }
  return (
    <div className="mt-3 border border-ink bg-field p-3">
      <p className="font-bold">{section.title || 'Section without a title'}</p>
      <div className="mt-2 w-40">
        <Field
          label="Starts at"
          value={typed}
          problem={problem}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={moveToTyped}
          onKeyDown={(e) => e.key === 'Enter' && moveToTyped()}
          className="font-mono"
        />
      </div>
      <div className="mt-3 flex flex-wrap gap-x-4 gap-y-1">
        <Button look="link" onClick={() => move(playback.now())}>
          Move to the playing position
        </Button>
        {first ? (
          <span className="text-quiet">The first one is never set in</span>
        ) : (
          <Button look="link" onClick={() => change({ nested: !section.nested })}>
            {section.nested ? 'Set out again' : 'Set in one level'}
          </Button>
        )}
        <Button
          look="link"
          onClick={() => {
            edit((d) => ({ ...d, sections: d.sections.filter((s) => s.id !== section.id) }))
            select(undefined)
          }}
        >
          Delete
        </Button>
      </div>
    </div>
  )
}
