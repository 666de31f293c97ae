import type { ReactNode } from 'react'
import { Button } from './Button'

interface Props<T> {
  lines: readonly T[]
  /** What one of them is called. */
  name: string
  fresh: () => T
  change: (lines: T[]) => void
  row: (line: T, set: (to: Partial<T>) => void, i: number) => ReactNode
  /** Whether their order says something, so that they can be moved. */
  ordered?: boolean
}

/** A list that is written line by line. */
export function Lines<T>({ lines, name, fresh, change, row, ordered }: Props<T>) {
  const set = (i: number, to: Partial<T>) => change(lines.map((line, j) => (j === i ? { ...line, ...to } : line)))
  const move = (i: number, by: number) => {
    const moved = [...lines]
    moved.splice(i + by, 0, ...moved.splice(i, 1))
    change(moved)
  }
  return (
    <div>
      <ul>
        {lines.map((line, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: lines are known by their place
          <li key={i} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-0.5 [&>button]:min-h-6 [&>button]:min-w-6 [&>button]:text-center">
            {row(line, (to) => set(i, to), i)}
            {ordered && (
              <>
                <Button look="link" disabled={i === 0} aria-label={`Move ${name} ${i + 1} up`} onClick={() => move(i, -1)}>
                  ↑
                </Button>
                <Button look="link" disabled={i === lines.length - 1} aria-label={`Move ${name} ${i + 1} down`} onClick={() => move(i, 1)}>
                  ↓
                </Button>
              </>
            )}
            <Button look="link" aria-label={`Take ${name} ${i + 1} out`} onClick={() => change(lines.filter((_, j) => j !== i))}>
              Out
            </Button>
          </li>
        ))}
      </ul>
      <Button look="link" onClick={() => change([...lines, fresh()])}>
        {`Add ${/^[aeiou]/.test(name) ? 'an' : 'a'} ${name}`}
      </Button>
    </div>
  )
}

export const lineLook = 'min-w-0 border border-quiet/60 bg-field px-2 py-1'

/** A text on one line, named for whoever does not see where it stands. */
export function Line({ label, value, set, className = 'flex-1 basis-40' }: { label: string; value: string; set: (text: string) => void; className?: string }) {
  return (
    <input aria-label={label} placeholder={label} value={value} maxLength={500} onChange={(e) => set(e.target.value)} className={`${lineLook} ${className}`} />
  )
}

export function Tick({ label, on, set }: { label: string; on: boolean; set: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-2">
      <input type="checkbox" checked={on} onChange={(e) => set(e.target.checked)} />
      {label}
    </label>
  )
}
