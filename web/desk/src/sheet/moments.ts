/** The moment of the sheet that a place on the screen shows; undefined where it shows none. */
export function momentAt(x: number, y: number): number | undefined {
  const row = document
    .elementsFromPoint(x, y)
    .map((element) => element.closest<HTMLElement>('[data-block]'))
    .find((found) => found !== null)
  if (!row) return undefined
  const box = row.getBoundingClientRect()
  const [start, end] = [Number(row.dataset.start), Number(row.dataset.end)]
  return start + ((y - box.top) / box.height) * (end - start)
}
