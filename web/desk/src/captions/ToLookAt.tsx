import { Button } from '../ui/Button'
import { inWords } from './look'
import type { TextNotes } from './useLook'

/** How much there is to look at in the captions, by kind; from one to the next, and all of a kind mended at once. */
export function ToLookAt({ look }: { look: TextNotes }) {
  const { notes } = look
  const kinds = [...new Set(notes.map((n) => n.kind))].map((kind) => ({ kind, all: notes.filter((n) => n.kind === kind) }))
  return (
    <div className="mt-2 border-t border-hairline pt-2">
      {notes.length === 0 ? (
        <p className="text-quiet">Nothing to look at.</p>
      ) : (
        <>
          <p>
            <b className="text-amber">{notes.length}</b> to look at{' '}
            <Button look="link" className="ml-3" onClick={look.toNext}>
              Go to the next
            </Button>
          </p>
          <ul className="mt-1 text-small">
            {kinds.map(({ kind, all }) => {
              const mendable = all.filter((n) => n.mends.length > 0 && n.kind !== 'spelling')
              return (
                <li key={kind} className="flex gap-x-4 py-0.5">
                  <span className="text-amber">{inWords(kind, all.length)}</span>
                  {mendable.length > 0 && (
                    <Button look="link" aria-label={`Mend: ${inWords(kind, mendable.length)}`} onClick={() => look.mend(mendable)}>
                      Mend {mendable.length === all.length ? 'all' : mendable.length}
                    </Button>
                  )}
                  <Button look="link" aria-label={`Leave: ${inWords(kind, all.length)}`} onClick={() => look.leave(all)}>
                    Leave all
                  </Button>
                </li>
              )
            })}
          </ul>
        </>
      )}
      {look.noSpelling && <p className="text-small text-quiet">{look.noSpelling}</p>}
    </div>
  )
}
