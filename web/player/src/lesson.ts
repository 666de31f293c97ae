import type { components } from '../../common/api.gen'
import type { Range } from './completion'

/** What the page tells the player: Wexel.Core.Packages, from which these types are generated. */
type Written = components['schemas']['PlayerData']
/** Lists that may be left out when a page is made are always written. */
export type Lesson = Omit<Written['lesson'], 'survey'> & { [K in 'questions' | 'goal' | 'draws' | 'areas' | 'notes']: NonNullable<Written['lesson'][K]> } & {
  survey: components['schemas']['Survey'] | null
}
export type PageData = Omit<Written, 'lesson'> & { lesson: Lesson }
export type Question = Lesson['questions'][number]
export type Key = NonNullable<Question['key']>
export type Place = NonNullable<PageData['place']>
export type Section = Lesson['sections'][number]
export type Captions = Lesson['captions'][number]

/** The section that a time lies in, or -1 before the first. */
export function sectionAt(sections: readonly Section[], ms: number): number {
  return sections.findLastIndex((section) => section.at <= ms)
}

/** Whether at least nine tenths of a section were watched. */
export function sectionSeen(lesson: Lesson, index: number, watched: readonly Range[]): boolean {
  const start = lesson.sections[index].at
  const end = lesson.sections[index + 1]?.at ?? lesson.length
  const seen = watched.reduce((sum, [a, b]) => sum + Math.max(0, Math.min(b, end) - Math.max(a, start)), 0)
  return end > start && seen >= (end - start) * 0.9
}
