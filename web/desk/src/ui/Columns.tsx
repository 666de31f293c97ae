/** How wide a table's columns are, one class each; one without takes what is left. Tables below each other line up by it. */
export const Columns = ({ widths }: { widths: string[] }) => (
  <colgroup>
    {widths.map((width, column) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by nothing but its place.
      <col key={column} className={width} />
    ))}
  </colgroup>
)
