import type { ButtonHTMLAttributes } from 'react'
import { linkLook } from './TextLink'

type Props = ButtonHTMLAttributes<HTMLButtonElement> & { look?: 'main' | 'link' }

/** A button that acts, or one that reads as a link in a line of text. */
export function Button({ look = 'main', className = '', type = 'button', ...rest }: Props) {
  const looks = {
    main: 'rounded-[2px] bg-copper px-4 py-1.5 font-bold text-on-copper hover:brightness-110 disabled:bg-hairline disabled:text-quiet',
    link: `${linkLook} disabled:text-quiet disabled:no-underline text-left`,
  }
  return <button type={type} className={`${looks[look]} ${className}`} {...rest} />
}
