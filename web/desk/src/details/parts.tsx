import type { ReactNode } from 'react'

/** How a field of a detail looks. */
export const box = 'w-full border border-quiet/60 bg-field px-2 py-1'

/** One of several that exclude each other; all of a group have one name. */
export function Choice({ group, chosen, choose, children }: { group: string; chosen: boolean; choose: () => void; children: ReactNode }) {
  return (
    <label className="flex min-h-7 items-center gap-1.5">
      <input type="radio" name={group} checked={chosen} onChange={choose} className="h-4 w-4 accent-copper" />
      {children}
    </label>
  )
}
