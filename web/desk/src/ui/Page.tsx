import type { ReactNode } from 'react'

/** A place's heading line, and what stands under it. */
export function Page({ title, about, action, children }: { title: string; about: ReactNode; action?: ReactNode; children: ReactNode }) {
  return (
    <>
      <header className="flex flex-wrap items-start justify-between gap-4 border-b border-hairline px-6 py-4">
        <div>
          <h1>{title}</h1>
          <p className="text-quiet">{about}</p>
        </div>
        {action}
      </header>
      <div className="px-6 py-4">{children}</div>
    </>
  )
}

/** What a fetch came to where there is nothing to show yet. */
export function Waiting({ query, children }: { query: { isPending: boolean; error: Error | null }; children: ReactNode }) {
  if (query.error)
    return (
      <p role="alert" className="text-brick">
        {query.error.message}
      </p>
    )
  if (query.isPending) return <p className="text-quiet">Fetching…</p>
  return children
}
