/** A moment as a field for day and time has it: in the time of this machine, without seconds. */
export function localOf(moment: string): string {
  const at = new Date(moment)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`
}

/** What such a field says as a moment; none where it says none. */
export function momentOf(local: string): string | null {
  const at = new Date(local)
  return local === '' || Number.isNaN(at.getTime()) ? null : at.toISOString()
}
