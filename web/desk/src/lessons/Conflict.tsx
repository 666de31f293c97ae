import { Button } from '../ui/Button'
import { day } from '../ui/words'
import type { Difference } from './useLesson'

/** Two people saved one lesson: what each of them changed, and how to go on. Nothing is overwritten. */
export function Conflict({ difference, settle }: { difference: Difference | undefined; settle: (how: 'both' | 'theirs') => void }) {
  return (
    <div role="alert" className="my-2 border border-brick bg-field p-3">
      <p className="font-bold text-brick">Somebody else saved this lesson meanwhile. What you changed since is not saved yet.</p>
      {difference && (
        <>
          <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-4">
            <dt className="text-quiet">
              {difference.by}, {day(difference.at)}
            </dt>
            <dd>{difference.theirs || 'nothing that differs'}</dd>
            <dt className="text-quiet">You, not saved</dt>
            <dd>{difference.mine || 'nothing that differs'}</dd>
          </dl>
          {difference.clashes.length > 0 && (
            <p className="mt-1 text-amber">Both changed {difference.clashes.join(', ')}; with both kept, yours stands there.</p>
          )}
          <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
            <Button onClick={() => settle('both')}>Keep both</Button>
            <Button look="link" onClick={() => settle('theirs')}>
              Take theirs; undo brings mine back
            </Button>
          </div>
        </>
      )}
    </div>
  )
}
