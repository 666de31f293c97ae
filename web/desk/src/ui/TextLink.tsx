import type { ReactNode } from 'react'
import { Link } from 'react-router'

/** How a word looks that leads somewhere or does something. */
export const linkLook = 'text-copper underline underline-offset-2 hover:decoration-2'

type Where =
  | { to: string }
  /** A file that is saved, or with neither a page of this server. */
  | { href: string; download?: boolean; out?: never }
  /** A page that opens beside this one. */
  | { href: string; out: true; download?: never }

/** A link in a line of text: to another view, to a file, or out of the desk. */
export function TextLink({ className = '', children, ...where }: Where & { className?: string; children: ReactNode; 'aria-label'?: string }) {
  const look = `${linkLook} ${className}`
  if ('to' in where)
    return (
      <Link className={look} {...where}>
        {children}
      </Link>
    )
  const { out, ...rest } = where
  return (
    <a className={look} {...rest} {...(out ? { target: '_blank', rel: 'noreferrer' } : {})}>
      {children}
    </a>
  )
}
