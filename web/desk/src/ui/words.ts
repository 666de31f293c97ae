/** Numbers as people read them, always with their unit. */
export function clock(ms: number): string {
  const s = Math.floor(ms / 1000)
  const two = (n: number) => String(n).padStart(2, '0')
  return s >= 3600 ? `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}` : `${Math.floor(s / 60)}:${two(s % 60)}`
}

export function exactClock(ms: number): string {
  return `${clock(ms)}.${String(Math.floor(ms % 1000)).padStart(3, '0')}`
}

/** Milliseconds of a time as people write it, such as 1:05.5; undefined where it is none. */
export function timeOf(text: string): number | undefined {
  const match = /^(?:(\d+):)?(\d+):(\d{2})(?:[.,](\d{1,3}))?$/.exec(text.trim())
  if (!match || Number(match[3]) > 59) return undefined
  return ((Number(match[1] ?? 0) * 60 + Number(match[2])) * 60 + Number(match[3])) * 1000 + Number((match[4] ?? '').padEnd(3, '0'))
}

/** A length with its unit: 0.3 s, 12 s, 1:02 min. */
export function lengthOf(ms: number): string {
  if (ms < 9_950) return `${(ms / 1000).toFixed(1)} s`
  return ms < 59_500 ? `${Math.round(ms / 1000)} s` : `${clock(ms + 500)} min`
}

export function size(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`
  if (bytes < 1_000_000) return `${Math.round(bytes / 1000)} kB`
  if (bytes < 1_000_000_000) return `${(bytes / 1e6).toFixed(1)} MB`
  return `${(bytes / 1e9).toFixed(2)} GB`
}

export function about(seconds: number): string {
  if (seconds < 1.5) return 'about 1 s'
  if (seconds < 90) return `about ${Math.round(seconds)} s`
  return `about ${Math.round(seconds / 60)} min`
}

// Making one takes longer than all else that a row of a list needs.
const dayAndTime = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

export function day(date: string): string {
  return dayAndTime.format(new Date(date))
}

const dayAlone = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })

/** The day without its time, for where there is little room. */
export function date(date: string): string {
  return dayAlone.format(new Date(date))
}

export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}
