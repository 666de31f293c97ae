/** Numbers as people read them, always with their unit. */
export function clock(ms: number): string {
  const s = Math.floor(ms / 1000)
  const two = (n: number) => String(n).padStart(2, '0')
  return s >= 3600 ? `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}` : `${Math.floor(s / 60)}:${two(s % 60)}`
}

export function exactClock(ms: number): string {
  return `${clock(ms)}.${String(Math.floor(ms % 1000)).padStart(3, '0')}`
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

export function day(date: string): string {
  return new Date(date).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
}

export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}
