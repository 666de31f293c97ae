import type { Range } from './completion'

export interface Section {
  id: string
  at: number
  title: string
  nested: boolean
}

/** What the page tells the player; Wexel.Core.Packages.PlayerLesson. */
export interface Lesson {
  key: string
  title: string
  description: string
  language: string
  length: number
  width: number
  height: number
  video: string
  poster: string | null
  sections: Section[]
  captions: { language: string; cues: { span: { start: number; end: number }; text: string; markup?: string; atTop?: boolean }[] } | null
  completePercent: number
  reportTo: string | null
  embedded: boolean
  /** The run-time of the learning system that the page is made for. */
  runtime: 'scorm12' | null
}

export interface Place {
  house: string
  where: string
  allLessons: string | null
}

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
