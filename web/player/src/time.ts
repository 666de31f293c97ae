/** 78500 is "1:18"; an hour and more is "1:02:30". */
export function clock(ms: number): string {
  const s = Math.floor(ms / 1000)
  const two = (n: number) => String(n).padStart(2, '0')
  return s >= 3600 ? `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}` : `${Math.floor(s / 60)}:${two(s % 60)}`
}

/** The place in an address such as `#t=78`, `#t=1:18` or `#t=78.5` (W3C Media Fragments, normal play time), in milliseconds. */
export function placeIn(hash: string): number | undefined {
  const text = new URLSearchParams(hash.replace(/^#/, '')).get('t')?.replace(/^npt:/, '').split(',')[0]
  if (!text || !/^(\d+:){0,2}\d+(\.\d+)?$/.test(text)) return undefined
  return Math.round(text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0) * 1000)
}
