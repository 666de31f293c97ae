import type { ReactNode } from 'react'
import { useWork } from '../../lessons/work'
import { Button } from '../../ui/Button'
import { lineLook } from '../../ui/Lines'
import { clock } from '../../ui/words'
import type { Action, ActionKind, Of } from '../overlays'

interface Writing<K extends ActionKind> {
  action: Of<K>
  change: (action: Of<K>) => void
}

/** What happens when an area is clicked, a kind: by the names of Wexel.Core.Overlays.Actions. */
interface Kind<K extends ActionKind> {
  /** As it is chosen. */
  name: string
  fresh: (now: number) => Of<K>
  /** As it stands in the sheet, while it is not written. */
  Brief: (props: { action: Of<K> }) => ReactNode
  Write: (props: Writing<K>) => ReactNode
}

function SectionBrief({ action }: { action: Of<'section'> }) {
  const section = useWork().document.sections.find((s) => s.id === action.to)
  return <>goes to {section ? `“${section.title}”` : 'no section yet'}</>
}

function WriteSection({ action, change }: Writing<'section'>) {
  const { sections } = useWork().document
  return (
    <select aria-label="Section" value={action.to} onChange={(e) => change({ ...action, to: e.target.value })} className={lineLook}>
      <option value="">Choose a section</option>
      {sections.map((s) => (
        <option key={s.id} value={s.id}>
          {clock(s.at)} {s.title}
        </option>
      ))}
    </select>
  )
}

function WriteTime({ action, change }: Writing<'time'>) {
  const { playback } = useWork()
  return (
    <span className="flex flex-wrap items-baseline gap-x-4">
      <Button look="link" className="font-mono" onClick={() => playback.seek(action.to)}>
        {clock(action.to)}
      </Button>
      <Button look="link" onClick={() => change({ ...action, to: Math.round(playback.now()) })}>
        Take the playing position
      </Button>
    </span>
  )
}

const Says = ({ label, value, set }: { label: string; value: string; set: (says: string) => void }) => (
  <textarea
    aria-label={label}
    placeholder={label}
    value={value}
    maxLength={500}
    rows={2}
    onChange={(e) => set(e.target.value)}
    className={`${lineLook} w-full`}
  />
)

const kinds: { [K in ActionKind]: Kind<K> } = {
  section: { name: 'goes to a section', fresh: () => ({ kind: 'section', to: '' }), Brief: SectionBrief, Write: WriteSection },
  time: { name: 'goes to a time', fresh: (now) => ({ kind: 'time', to: now }), Brief: ({ action }) => <>goes to {clock(action.to)}</>, Write: WriteTime },
  link: {
    name: 'opens a page',
    fresh: () => ({ kind: 'link', address: '' }),
    Brief: ({ action }) => <span className="break-all">opens {action.address || 'nothing yet'}</span>,
    Write: ({ action, change }) => (
      <input
        aria-label="Address"
        placeholder="https://"
        value={action.address}
        maxLength={2000}
        onChange={(e) => change({ ...action, address: e.target.value })}
        className={`${lineLook} w-full`}
      />
    ),
  },
  text: {
    name: 'shows a text',
    fresh: () => ({ kind: 'text', says: '' }),
    Brief: ({ action }) => <>shows {action.says ? `“${action.says}”` : 'nothing yet'}</>,
    Write: ({ action, change }) => <Says label="What it shows" value={action.says} set={(says) => change({ ...action, says })} />,
  },
  wait: {
    name: 'lets the lesson go on, which waits for it',
    fresh: () => ({ kind: 'wait', says: '' }),
    Brief: () => <>the picture waits until it is clicked</>,
    Write: ({ action, change }) => <Says label="Said to whoever clicks elsewhere" value={action.says} set={(says) => change({ ...action, says })} />,
  },
}

export const actionNames = Object.keys(kinds) as ActionKind[]
/** A kind and what it is given always belong together. */
export const actionOf = (kind: ActionKind) => kinds[kind] as unknown as Kind<ActionKind> & { fresh: (now: number) => Action }
