import type { Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { lengthOf } from '../ui/words'

export type Suggestion = Schemas['CutSuggestion']

/** What can be done with a suggested cut. */
export interface Suggesting {
  take: (suggestion: Suggestion) => void
  leave: (suggestion: Suggestion) => void
  /** Plays over the place as if it were cut. */
  hear: (suggestion: Suggestion) => void
  look: (suggestion: Suggestion) => void
}

const what: Record<Suggestion['kind'], (length: string) => string> = {
  beforeFirstWord: (length) => `Cut ${length} before the first word`,
  afterLastWord: (length) => `Cut ${length} after the last word`,
  pause: (length) => `Shorten the pause by ${length}`,
  nothingHappens: (length) => `Cut ${length} in which nothing happens`,
}

export function inWords(s: Suggestion): string {
  return what[s.kind](lengthOf(s.range.length))
}

/** A suggested cut, where it would be. */
export function SuggestionBox({ suggestion, suggesting }: { suggestion: Suggestion; suggesting: Suggesting }) {
  return (
    <div data-beside data-suggestion className="ml-[92px] mr-4 mb-1 mt-0.5 flex flex-wrap items-center gap-x-4 border border-dashed border-amber px-3 py-1">
      <span>
        <b className="text-amber">{inWords(suggestion)}</b>
        {suggestion.screenChanges && <span className="text-quiet"> · the screen changes in it</span>}
      </span>
      <Button look="link" onClick={() => suggesting.take(suggestion)}>
        Take
      </Button>
      <Button look="link" onClick={() => suggesting.leave(suggestion)}>
        Leave
      </Button>
      <Button look="link" onClick={() => suggesting.hear(suggestion)}>
        Hear it cut
      </Button>
      <Button look="link" onClick={() => suggesting.look(suggestion)}>
        Play it
      </Button>
    </div>
  )
}
