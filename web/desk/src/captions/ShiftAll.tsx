import { useState } from 'react'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { shifted } from './cues'

/** All captions earlier or later together, as where a file was made for another cut. */
export function ShiftAll() {
  const { text } = useWork()
  const [by, setBy] = useState('0.5')
  const seconds = Number(by.replace(',', '.'))
  const known = by.trim() !== '' && Number.isFinite(seconds)
  const shift = (sign: 1 | -1) => known && text.change(shifted(text.cues, sign * Math.round(seconds * 1000)))
  return (
    <details className="mt-2 border-t border-hairline pt-2">
      <summary className="cursor-pointer">Shift all</summary>
      <div className="mt-2 flex items-end gap-4">
        <div className="w-24">
          <Field label="Seconds" value={by} onChange={(e) => setBy(e.target.value)} problem={known ? undefined : 'Write a number.'} className="font-mono" />
        </div>
        <Button look="link" onClick={() => shift(-1)}>
          Earlier
        </Button>
        <Button look="link" onClick={() => shift(1)}>
          Later
        </Button>
      </div>
    </details>
  )
}
