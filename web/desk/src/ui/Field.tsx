import { type InputHTMLAttributes, useId } from 'react'

type Props = InputHTMLAttributes<HTMLInputElement> & { label: string; problem?: string }

export function Field({ label, problem, className = '', ...rest }: Props) {
  const id = useId()
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      <input
        id={id}
        aria-invalid={Boolean(problem)}
        aria-describedby={problem ? `${id}-problem` : undefined}
        className={`w-full border border-quiet/60 bg-field px-2 py-1.5 ${className}`}
        {...rest}
      />
      {problem && (
        <p id={`${id}-problem`} className="text-brick">
          {problem}
        </p>
      )}
    </div>
  )
}
