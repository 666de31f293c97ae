import { type ReactNode, useRef } from 'react'
import { Button } from './Button'

interface Props {
  /** What is chosen, for the field itself. */
  label: string
  /** Which files are offered. */
  accept: string
  take: (file: File) => void
  disabled?: boolean
  /** What stands on the button. */
  children: ReactNode
}

/** A button that lets a file be chosen; the same file can be chosen again. */
export function ChooseFile({ label, accept, take, disabled, children }: Props) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button look="link" disabled={disabled} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        tabIndex={-1}
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) take(file)
          e.target.value = ''
        }}
      />
    </>
  )
}
