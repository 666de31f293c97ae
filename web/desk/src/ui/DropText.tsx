import type { TextareaHTMLAttributes } from 'react'

interface Props extends Omit<TextareaHTMLAttributes<HTMLTextAreaElement>, 'onChange' | 'onDrop' | 'onDragOver' | 'className'> {
  take: (text: string) => void
  takeFile: (file: File) => void
  className?: string
}

/** A field for a long text, into which a file of it can be dropped as well. */
export function DropText({ take, takeFile, className = '', ...rest }: Props) {
  return (
    <textarea
      {...rest}
      onChange={(e) => take(e.target.value)}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        const file = e.dataTransfer.files[0]
        if (!file) return
        e.preventDefault()
        e.stopPropagation()
        takeFile(file)
      }}
      className={`w-full border border-quiet/60 bg-field px-2 py-1.5 ${className}`}
    />
  )
}
