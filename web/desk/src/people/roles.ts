import type { Person } from './usePeople'

export type Role = Person['role']

/** The roles, each with what it lets somebody do. */
export const roles: { role: Role; word: string; may: string }[] = [
  { role: 'learner', word: 'learner', may: 'watches lessons' },
  { role: 'trainer', word: 'trainer', may: 'makes lessons and releases them' },
  { role: 'administrator', word: 'administrator', may: 'adds and changes people too' },
]
