import type { ReactNode } from 'react'
import { linkLook } from './TextLink'

/** What is pressed to unfold the rest. */
export function Summary({ className = '', children }: { className?: string; children: ReactNode }) {
  return <summary className={`cursor-pointer ${linkLook} ${className}`}>{children}</summary>
}
