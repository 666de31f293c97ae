/** A state as a mark with its word: never by colour alone. */
export type MarkKind = 'nothing' | 'behind' | 'live' | 'working' | 'failed'

export function Mark({ kind, children }: { kind: MarkKind; children: React.ReactNode }) {
  return (
    <span className="inline-flex items-center gap-2">
      <MarkShape kind={kind} />
      <span>{children}</span>
    </span>
  )
}

/** The mark by itself, for where a line of text begins with it. It is drawn by its style: a board has hundreds, and each picture in it costs a frame. */
export function MarkShape({ kind, className = '' }: { kind: MarkKind; className?: string }) {
  return <i aria-hidden="true" className={`mark mark-${kind} ${className}`} />
}
