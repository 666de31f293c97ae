import { useEffect, useState } from 'react'
import { Field } from './Field'
import { numberOf } from './number'

/** A number that is taken when it is within its range, with Enter or on leaving the field. */
export function NumberField({
  label,
  value,
  least,
  most,
  take,
}: {
  label: string
  value: number | undefined
  least: number
  most: number
  take: (value: number) => void
}) {
  const [typed, setTyped] = useState(String(value ?? ''))
  const [problem, setProblem] = useState('')
  useEffect(() => {
    setTyped(String(value ?? ''))
    setProblem('')
  }, [value])
  const check = () => {
    const number = numberOf(typed)
    if (typed.trim() === '' || !Number.isFinite(number) || number < least || number > most) return setProblem(`Between ${least} and ${most}.`)
    setProblem('')
    if (number !== value) take(Math.round(number * 100) / 100)
  }
  return (
    <Field
      label={label}
      value={typed}
      problem={problem}
      inputMode="decimal"
      onChange={(e) => setTyped(e.target.value)}
      onBlur={check}
      onKeyDown={(e) => e.key === 'Enter' && check()}
      className="font-mono"
    />
  )
}
