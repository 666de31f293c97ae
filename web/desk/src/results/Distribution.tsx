export interface Counted {
  words: string
  count: number
  right?: boolean
}

/** How often each of some things was given, as bars with their words and figures. */
export function Distribution({ counts, all }: { counts: readonly Counted[]; all: number }) {
  return (
    <ul className="mt-1 max-w-[640px]">
      {counts.map((one) => (
        <li key={one.words} className="grid grid-cols-[minmax(0,1fr)_120px_64px] items-center gap-x-3">
          <span className={`truncate ${one.right ? 'font-bold text-lagoon' : ''}`} title={one.words}>
            {one.words}
            {one.right && ' ✓'}
          </span>
          <span aria-hidden="true" className="h-2 bg-hairline">
            <span className={`block h-2 ${one.right ? 'bg-lagoon' : 'bg-quiet'}`} style={{ width: `${all > 0 ? (100 * one.count) / all : 0}%` }} />
          </span>
          <span className="text-right font-mono text-small">{one.count}</span>
        </li>
      ))}
    </ul>
  )
}
