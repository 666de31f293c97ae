import { useId } from 'react'
import type { Schemas } from '../app/api'
import { PeopleField } from './PeopleField'
import { PictureField } from './PictureField'

interface Props {
  field: Schemas['OutletField']
  value: unknown
  change: (value: unknown) => void
  problem?: string
}

const box = 'w-full border border-quiet/60 bg-field px-2 py-1.5'

/** One field that a kind of outlet declares. */
export function SettingsField({ field, value, change, problem }: Props) {
  const id = useId()
  const text = value === null || value === undefined ? '' : String(value)
  const described = { id, 'aria-invalid': Boolean(problem), 'aria-describedby': problem || field.help ? `${id}-more` : undefined }
  // An address or a colour that is left empty is none.
  const typed = (entered: string) => change(entered === '' && field.input !== 'line' && field.input !== 'text' ? null : entered)
  if (field.input === 'yesNo')
    return (
      <label className="flex items-center gap-2">
        <input type="checkbox" className="h-4 w-4 accent-copper" checked={value === true} onChange={(e) => change(e.target.checked)} />
        {field.label}
      </label>
    )
  if (field.input === 'picture') return <PictureField field={field} value={text} change={change} problem={problem} />
  if (field.input === 'people') return <PeopleField field={field} value={Array.isArray(value) ? value : []} change={change} problem={problem} />
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {field.label}
      </label>
      {field.input === 'choice' ? (
        <select {...described} className={box} value={text} onChange={(e) => change(e.target.value)}>
          {field.choices?.map((choice) => (
            <option key={choice.value} value={choice.value}>
              {choice.words}
            </option>
          ))}
        </select>
      ) : field.input === 'text' ? (
        <textarea {...described} rows={3} className={box} value={text} onChange={(e) => typed(e.target.value)} />
      ) : (
        <input {...described} type={field.input === 'address' ? 'url' : 'text'} className={box} value={text} onChange={(e) => typed(e.target.value)} />
      )}
      {(problem || field.help) && (
        <p id={`${id}-more`} className={problem ? 'text-brick' : 'text-small text-quiet'}>
          {problem ?? field.help}
        </p>
      )}
    </div>
  )
}
