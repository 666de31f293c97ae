import type { Document, Section } from '../lessons/useLesson'
import type { Playback } from '../sheet/usePlayback'
import { clock } from '../ui/words'

interface Props {
  section: Section
  number: string
  until: number
  edit: (change: (d: Document) => Document) => void
  playback: Playback
  selected: boolean
  select: (id: string | undefined) => void
  editable: boolean
}

/** A section set as a heading of the sheet; its title is typed right there. */
export function SectionHeading({ section, number, until, edit, playback, selected, select, editable }: Props) {
  const rename = (title: string) => edit((d) => ({ ...d, sections: d.sections.map((s) => (s.id === section.id ? { ...s, title } : s)) }))
  const look = `${section.nested ? 'border-hairline' : 'border-ink'} ${selected ? 'bg-field' : ''}`
  return (
    <div className={`mx-4 grid grid-cols-[76px_1fr_auto] items-baseline gap-x-3 border-t-2 pb-1 pt-2 ${look}`}>
      <button
        type="button"
        onClick={() => {
          playback.seek(section.at)
          select(section.id)
        }}
        aria-label={`Go to ${clock(section.at)}, section ${number}`}
        className="text-right font-mono text-small hover:text-copper"
      >
        {clock(section.at)}
      </button>
      <h2 className={`flex gap-3 ${section.nested ? 'pl-6 text-body' : ''}`}>
        <span aria-hidden="true">{number}</span>
        {editable ? (
          <input
            aria-label={`Title of section ${number}`}
            value={section.title}
            placeholder="Title of the section"
            maxLength={300}
            data-section={section.id}
            onFocus={() => select(section.id)}
            onChange={(e) => rename(e.target.value)}
            className="min-w-0 flex-1 bg-transparent px-1 placeholder:font-normal placeholder:text-amber hover:bg-field focus:bg-field"
          />
        ) : (
          <span>{section.title || <span className="font-normal text-amber">Needs a title</span>}</span>
        )}
      </h2>
      <span className="font-mono text-small text-quiet">{clock(until - section.at)}</span>
    </div>
  )
}
