import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { languageName } from '../ui/LanguageInput'
import { findId } from './FindAndReplace'
import { inWords } from './look'
import { useLook } from './useLook'
import { draftId } from './useText'

/** What text stands in the sheet, and what is to be done with it: the line above the sheet while a lesson is marked up. */
export function TextLine() {
  const { document, text } = useWork()
  const { notes, toNext } = useLook()
  const { draft, track } = text
  const hasDraft = Boolean(draft && draft.cues.length > 0)
  if (document.captions.length === 0 && !hasDraft) return null
  const kinds = [...new Set(notes.map((n) => n.kind))]
  const find = () => {
    const place = window.document.getElementById(findId)
    if (!(place instanceof HTMLDetailsElement)) return
    place.open = true
    place.querySelector('input')?.focus()
  }
  return (
    <>
      <label className="flex items-center gap-2">
        Text
        <select
          value={track?.id ?? draftId}
          onChange={(e) => text.choose(e.target.value)}
          className="max-w-56 border border-quiet/60 bg-field px-1 py-0.5 font-bold text-ink"
        >
          {document.captions.map((t) => (
            <option key={t.id} value={t.id}>
              {languageName(t.language)}
              {t.state === 'draft' ? ', draft' : ''}
            </option>
          ))}
          {hasDraft && draft && <option value={draftId}>{languageName(draft.language)}, draft by this machine</option>}
        </select>
      </label>
      <Button look="link" onClick={find}>
        Find and replace
      </Button>
      {notes.length > 0 && (
        <Button look="link" className="truncate" aria-label={`${notes.length} to look at; go to the next`} onClick={toNext}>
          <b>{notes.length}</b> to look at: {kinds.map((kind) => inWords(kind, notes.filter((n) => n.kind === kind).length)).join(', ')}
        </Button>
      )}
    </>
  )
}
