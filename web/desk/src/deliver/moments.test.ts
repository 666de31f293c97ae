import { expect, it } from 'vitest'
import { localOf, momentOf } from './moments'

it('is the same moment there and back, whatever the time of the machine is', () => {
  for (const moment of ['2026-12-03T09:00:00.000Z', '2026-06-30T23:59:00.000Z', '2027-01-01T00:00:00.000Z']) expect(momentOf(localOf(moment))).toBe(moment)
  expect(momentOf('')).toBeNull()
  expect(momentOf('no day')).toBeNull()
})
