import { Button } from '../ui/Button'
import type { Note } from './look'
import type { TextNotes } from './useLook'

/** What is to be looked at in one caption, below its words: each mended or left by one click. */
export function CueNotes({ notes, look }: { notes: Note[]; look: TextNotes }) {
  return (
    <ul className="mb-1 text-small" data-beside>
      {notes.map((note, place) => {
        const same = look.same(note).length
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a word that stands twice is two notes of one name, in their order
          <li key={`${note.key} ${place}`} className="flex flex-wrap items-baseline gap-x-3 text-amber">
            <span>{note.sentence}</span>
            {note.mends.map((mend, i) => (
              <Button key={mend.words} look="link" className="py-0.5" onClick={() => look.mendWith(note, i)}>
                {mend.words}
              </Button>
            ))}
            <Button look="link" className="py-0.5" aria-label={`Leave it: ${note.sentence}`} onClick={() => look.leave([note])}>
              {note.kind === 'unsure' ? 'It is right' : 'Leave'}
            </Button>
            {same > 1 && (
              <Button look="link" className="py-0.5" onClick={() => look.mend(look.same(note))}>
                All {same}
              </Button>
            )}
          </li>
        )
      })}
    </ul>
  )
}
