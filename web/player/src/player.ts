import type { PageLanguage } from './language'
import type { Lesson, Place } from './lesson'

/** What every part of the page is given: the lesson, the picture that plays it, and how to move in it. Parts hear of each other by the video's events. */
export interface Player {
  lesson: Lesson
  place: Place | null
  /** In which language the page speaks. */
  language: PageLanguage
  video: HTMLVideoElement
  /** Goes to a time, in milliseconds, and neither plays nor pauses. */
  go(ms: number): void
  /** Goes to a time, in milliseconds, and plays. */
  playFrom(ms: number): void
  /** Says something that keeps the lesson from playing. */
  fail(sentence: string): void
}

/** Where the picture is, in milliseconds. */
export const now = (player: Player) => player.video.currentTime * 1000

/** Whether the page must lead nowhere else: what is made for children is the lesson and nothing besides. */
export const leadsNowhere = (lesson: Lesson) => lesson.details.forChildren === true
