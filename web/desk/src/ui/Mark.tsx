/** A state as a mark with its word: never by colour alone. */
export type MarkKind = 'nothing' | 'behind' | 'live' | 'working' | 'failed'

const shapes: Record<MarkKind, React.ReactNode> = {
  nothing: <circle cx="6" cy="6" r="4.5" fill="none" stroke="var(--quiet)" strokeWidth="1.5" />,
  behind: (
    <>
      <circle cx="6" cy="6" r="4.5" fill="none" stroke="var(--amber)" strokeWidth="1.5" />
      <path d="M6 1.5a4.5 4.5 0 0 0 0 9z" fill="var(--amber)" />
    </>
  ),
  live: <circle cx="6" cy="6" r="5" fill="var(--lagoon)" />,
  working: (
    <>
      <rect x="0" y="3.5" width="12" height="5" fill="var(--hairline)" />
      <rect x="0" y="3.5" width="7" height="5" fill="var(--ink)" />
    </>
  ),
  failed: <path d="M1 1h7l3 3v7H1z" fill="var(--brick)" />,
}

export function Mark({ kind, children }: { kind: MarkKind; children: React.ReactNode }) {
  return (
    <span className="inline-flex items-center gap-2">
      <MarkShape kind={kind} />
      <span>{children}</span>
    </span>
  )
}

/** The mark by itself, for where a line of text begins with it. */
export function MarkShape({ kind, className = '' }: { kind: MarkKind; className?: string }) {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true" className={`shrink-0 ${className}`}>
      {shapes[kind]}
    </svg>
  )
}
