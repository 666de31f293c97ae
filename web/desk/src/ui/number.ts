/**
 * A number as people type it: with spaces between thousands, with a comma or a point before the parts, with either sign for minus. A comma is
 * taken for one between thousands only where three digits follow and nothing else.
 */
export function numberOf(typed: string): number {
  const plain = typed.replaceAll(/\s/g, '').replace('−', '-')
  const thousands = /^-?\d{1,3}(,\d{3})+(\.\d*)?$/.test(plain)
  return plain === '' ? Number.NaN : Number(thousands ? plain.replaceAll(',', '') : plain.replace(',', '.'))
}
