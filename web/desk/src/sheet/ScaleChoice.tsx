import type { ReactNode } from 'react'
import { Button } from '../ui/Button'
import { count } from '../ui/words'
import type { Scale } from './scales'

interface Props {
  scales: Scale[]
  scale: Scale
  choose: (id: Scale['id']) => void
  folded: number
  opened: number
  fold: () => void
  /** What else stands in the line. */
  children: ReactNode
}

/** How close one looks, and what is folded. */
export function ScaleChoice({ scales, scale, choose, folded, opened, fold, children }: Props) {
  return (
    <div className="flex items-center gap-4 border-b border-hairline px-4 py-1 text-small whitespace-nowrap text-quiet">
      <label className="flex items-center gap-2">
        Look
        <select value={scale.id} onChange={(e) => choose(e.target.value as Scale['id'])} className="border border-quiet/60 bg-field px-1 py-0.5 text-ink">
          {scales.map((s) => (
            <option key={s.id} value={s.id}>
              {s.label}
            </option>
          ))}
        </select>
      </label>
      {children}
      {folded > 0 && <span>{count(folded, 'stretch', 'stretches')} folded</span>}
      {opened > 0 && (
        <Button look="link" onClick={fold}>
          Fold again
        </Button>
      )}
    </div>
  )
}
