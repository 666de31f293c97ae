import type { Schemas } from '../app/api'

type Course = Schemas['CourseView']
type Lesson = Schemas['LessonRow']

/** What is looked for in the list; an empty text stands for all. */
export interface Filter {
  stage: string
  outlet: string
  behind: boolean
  author: string
}

export const everything: Filter = { stage: '', outlet: '', behind: false, author: '' }

/** Where no lesson is released. */
export const nowhere = 'nowhere'

export const isEverything = (f: Filter) => !f.stage && !f.outlet && !f.behind && !f.author

export function fits(l: Lesson, f: Filter): boolean {
  return (
    (!f.stage || l.stage === f.stage) &&
    (!f.outlet || (f.outlet === nowhere ? l.releases.length === 0 : l.releases.some((r) => r.outlet === f.outlet && (!f.behind || r.behind)))) &&
    (!f.behind || l.releases.some((r) => r.behind)) &&
    (!f.author || l.author === f.author)
  )
}

/** Courses with the lessons that fit; one of which none does is left out where anything is filtered. */
export function filtered(courses: readonly Course[], f: Filter): Course[] {
  if (isEverything(f)) return [...courses]
  return courses.map((c) => ({ ...c, lessons: c.lessons.filter((l) => fits(l, f)) })).filter((c) => c.lessons.length > 0)
}

/** What there is to choose among, each once, in the order of the alphabet. */
export function choices(courses: readonly Course[]) {
  const lessons = courses.flatMap((c) => c.lessons)
  const apart = (of: (l: Lesson) => (string | null | undefined)[]) => [...new Set(lessons.flatMap(of))].filter((v): v is string => Boolean(v)).sort()
  return { stages: apart((l) => [l.stage]), outlets: apart((l) => l.releases.map((r) => r.outlet)), authors: apart((l) => [l.author]) }
}

const stages = { bringIn: 'bring-in', tidy: 'tidy', markUp: 'mark-up', deliver: 'deliver' } as const

/** Where a lesson opens: where its work stands. */
export const whereToGo = (l: Lesson) => `/lessons/${l.id}/${stages[l.next.stage]}`
