import type { Range } from './completion'
import type { Events } from './events'
import type { PageLanguage } from './language'
import type { Lesson, Place } from './lesson'
import type { Answers, Memory, Progress } from './memory'
import type { ShownCaptions } from './tracks'

/** What parts tell each other; of the picture they hear by the video's own events. */
export type PlayerEvents = {
  /** What is known from earlier, once. */
  known: Progress
  /** An answer was given, or is known from elsewhere. */
  answers: Answers
  /** What was watched so far, of this page and of earlier ones. */
  watched: readonly Range[]
  /** What stopped the picture is done with, and nothing else is to be answered there. */
  freed: null
}

/** What every part of the page is given: the lesson, the picture that plays it, and how to move in it. */
export interface Player extends Events<PlayerEvents> {
  lesson: Lesson
  place: Place | null
  /** In which language the page speaks. */
  language: PageLanguage
  video: HTMLVideoElement
  /** Where progress is kept. */
  memory: Memory
  /** Goes to a time, in milliseconds, and neither plays nor pauses. */
  go(ms: number): void
  /** Goes to a time, in milliseconds, and plays. */
  playFrom(ms: number): void
  /** Says something that keeps the lesson from playing. */
  fail(sentence: string): void
  captions: ShownCaptions
  /** What lies over the picture; on narrow screens it stands below. */
  over: HTMLElement
}

/** Where the picture is, in milliseconds. */
export const now = (player: Player) => player.video.currentTime * 1000

/** Whether the page must lead nowhere else: what is made for children is the lesson and nothing besides. */
export const leadsNowhere = (lesson: Lesson) => lesson.details.forChildren === true
