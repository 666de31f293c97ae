import { createContext, type ReactNode, useContext, useEffect, useId, useState } from 'react'
import { numberOf } from '../ui/number'
import type { Note } from './settings'

interface Sheet {
  note: (path: string) => Note | undefined
  /** The first finding about a setting. */
  faultAt: (path: string) => string | undefined
  locked: boolean
}

const SheetContext = createContext<Sheet>({ note: () => undefined, faultAt: () => undefined, locked: true })

export const SettingsSheet = SheetContext.Provider

export const useSheet = () => useContext(SheetContext)

interface RowProps {
  path: string
  children: (field: { id: string; 'aria-describedby': string; 'aria-invalid': boolean; disabled: boolean; className: string }) => ReactNode
}

const columns = 'grid-cols-[150px_210px_minmax(0,1fr)] max-[1100px]:grid-cols-[150px_minmax(0,1fr)]'

/** One setting: its name, its field with the unit, what is usual and what it costs. */
export function Setting({ path, children }: RowProps) {
  const id = useId()
  const { note, faultAt, locked } = useContext(SheetContext)
  const about = note(path)
  const fault = faultAt(path)
  return (
    <div className={`grid items-baseline gap-x-4 border-b border-hairline py-1 ${columns}`}>
      <label htmlFor={id}>{about?.title ?? path}</label>
      <span className="flex items-center gap-2">
        {children({
          id,
          'aria-describedby': `${id}-note`,
          'aria-invalid': Boolean(fault),
          disabled: locked,
          className: 'min-w-0 border border-quiet/60 bg-field px-2 py-0.5 disabled:border-transparent disabled:bg-transparent disabled:px-0',
        })}
        {about?.unit && <span className="whitespace-nowrap text-small text-quiet">{shownUnit(about.unit)}</span>}
      </span>
      <span id={`${id}-note`} className="text-small text-quiet max-[1100px]:col-span-2">
        {fault ? (
          <span className="text-brick">{fault}</span>
        ) : (
          about && (
            <>
              {about.usual && `Usual: ${about.usual}. `}
              {sentence(about.cost)}.
            </>
          )
        )}
      </span>
    </div>
  )
}

/** Rates and sizes are typed in thousands and millions. */
function shownUnit(unit: string) {
  return unit === 'bit/s' ? 'kbit/s' : unit === 'bytes' ? 'MB' : unit
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

interface ChoiceProps<T extends string> {
  path: string
  value: T
  options: Readonly<Record<T, string>>
  take: (value: T) => void
}

export function ChoiceSetting<T extends string>({ path, value, options, take }: ChoiceProps<T>) {
  return (
    <Setting path={path}>
      {(field) => (
        <select
          {...field}
          className={`${field.className} w-full disabled:appearance-none disabled:text-ink disabled:opacity-100`}
          value={value}
          onChange={(e) => take(e.target.value as T)}
        >
          {(Object.entries(options) as [T, string][]).map(([key, label]) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
      )}
    </Setting>
  )
}

interface NumberProps {
  path: string
  value: number | null
  /** What one of the shown unit is in the profile's: 1000 for kbit/s. */
  scale?: number
  /** What an empty field means; without it there must be a number. */
  empty?: string
  /** Whether parts of one are taken too. */
  parts?: boolean
  take: (value: number | null) => void
}

/** A number that is taken as it is typed. */
export function NumberSetting({ path, value, scale = 1, empty, parts = false, take }: NumberProps) {
  const shown = value === null ? '' : String(value / scale).replace('-', '−')
  const [typed, setTyped] = useState(shown)
  const number = typed.trim() === '' ? null : numberOf(typed)
  const unclear = number !== null && !Number.isFinite(number)
  // What comes from elsewhere, such as undo or a proposal, replaces what was typed.
  useEffect(() => {
    setTyped((now) => (now.trim() !== '' && numberOf(now) * scale === value ? now : shown))
  }, [value, scale, shown])
  return (
    <Setting path={path}>
      {(field) => (
        <input
          {...field}
          className={`${field.className} w-[110px] font-mono`}
          inputMode="decimal"
          aria-invalid={field['aria-invalid'] || unclear}
          placeholder={empty}
          value={typed}
          onChange={(e) => {
            setTyped(e.target.value)
            const next = e.target.value.trim() === '' ? null : numberOf(e.target.value)
            if (next === null ? empty !== undefined : Number.isFinite(next))
              take(next === null ? null : parts ? Math.round(next * scale * 100) / 100 : Math.round(next * scale))
          }}
        />
      )}
    </Setting>
  )
}

/** Whole numbers in a row, taken as they are typed. */
export function NumbersSetting({ path, value, take }: { path: string; value: readonly number[]; take: (value: number[]) => void }) {
  const shown = value.join(', ')
  const [typed, setTyped] = useState(shown)
  const read = (text: string) => text.split(/[\s,;]+/).filter(Boolean)
  const unclear = read(typed).some((part) => !/^\d+$/.test(part))
  // What comes from elsewhere, such as undo or a proposal, replaces what was typed.
  useEffect(() => {
    setTyped((now) =>
      now
        .split(/[\s,;]+/)
        .filter(Boolean)
        .map(Number)
        .join(', ') === shown
        ? now
        : shown,
    )
  }, [shown])
  return (
    <Setting path={path}>
      {(field) => (
        <input
          {...field}
          className={`${field.className} w-[150px] font-mono`}
          inputMode="numeric"
          aria-invalid={field['aria-invalid'] || unclear}
          placeholder="none"
          value={typed}
          onChange={(e) => {
            setTyped(e.target.value)
            const parts = read(e.target.value)
            if (parts.every((part) => /^\d+$/.test(part))) take(parts.map(Number))
          }}
        />
      )}
    </Setting>
  )
}

export function SwitchSetting({ path, value, take }: { path: string; value: boolean; take: (value: boolean) => void }) {
  return (
    <Setting path={path}>
      {(field) => (
        <>
          {!field.disabled && (
            <input
              type="checkbox"
              id={field.id}
              aria-describedby={field['aria-describedby']}
              className="h-4 w-4 accent-copper"
              checked={value}
              onChange={(e) => take(e.target.checked)}
            />
          )}
          {value ? 'yes' : 'no'}
        </>
      )}
    </Setting>
  )
}
