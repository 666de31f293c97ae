import { useLacks } from '../lessons/useLacks'
import { useWork } from '../lessons/work'
import { ShownPicture } from '../picture/ShownPicture'
import { PlacedBox } from '../sheet/PlacedBox'
import { movedTo } from '../sheet/placed'
import { lineLook } from '../ui/Lines'
import { clock } from '../ui/words'
import { type Note, ofNotes } from './overlays'
import { Stretch } from './Stretch'

const corners: Record<Note['corner'], string> = {
  topLeft: 'top left',
  topRight: 'top right',
  middle: 'in the middle',
  bottomLeft: 'bottom left',
  bottomRight: 'bottom right',
}

interface Props {
  note: Note
  struck: boolean
  open: boolean
  select: (id: string | undefined) => void
}

/** A note over the picture, where its stretch begins. */
export function NoteBox({ note, struck, open, select }: Props) {
  const { edit, reel } = useWork()
  const lacks = useLacks('note', note.id)
  const copy = () => {
    const made = { ...note, id: crypto.randomUUID(), span: movedTo(note.span, note.span.start + 1000, reel.length) }
    edit((d) => ofNotes.added(d, made))
    select(made.id)
  }
  return (
    <PlacedBox
      name="note"
      id={note.id}
      at={note.span.start}
      terms={['note over the picture', corners[note.corner], `until ${clock(note.span.end)}`]}
      struck={struck}
      open={open}
      select={select}
      move={(at) => edit((d) => ofNotes.changed(d, note.id, { span: movedTo(note.span, at, reel.length) }))}
      copy={copy}
      remove={() => edit((d) => ofNotes.without(d, note.id))}
      lacks={lacks}
    >
      {open ? (
        <Write note={note} />
      ) : (
        <p className="whitespace-pre-line">
          {note.text}
          {note.address && <span className="ml-3 break-all text-quiet">{note.address}</span>}
        </p>
      )}
    </PlacedBox>
  )
}

function Write({ note }: { note: Note }) {
  const { edit } = useWork()
  const set = (to: Partial<Note>) => edit((d) => ofNotes.changed(d, note.id, to))
  return (
    <div className="flex flex-col gap-2 py-1">
      <textarea
        data-note={note.id}
        aria-label="What the note says"
        placeholder="What the note says"
        value={note.text}
        maxLength={500}
        rows={3}
        onChange={(e) => set({ text: e.target.value })}
        className={`${lineLook} w-full`}
      />
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <label className="flex items-baseline gap-2">
          It stands
          <select value={note.corner} onChange={(e) => set({ corner: e.target.value as Note['corner'] })} className={lineLook}>
            {Object.entries(corners).map(([corner, words]) => (
              <option key={corner} value={corner}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label className="flex min-w-52 flex-1 items-baseline gap-2">
          and leads to
          <input
            value={note.address}
            maxLength={2000}
            placeholder="nothing; or https://"
            onChange={(e) => set({ address: e.target.value })}
            className={`${lineLook} min-w-0 flex-1`}
          />
        </label>
      </div>
      <ShownPicture picture={note.picture} set={(picture) => set({ picture })} />
      <Stretch span={note.span} set={(span) => set({ span })} />
    </div>
  )
}
