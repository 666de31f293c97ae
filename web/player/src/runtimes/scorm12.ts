import { notAsked } from '../draw'
import type { Lesson } from '../lesson'
import { type Interaction, type Memory, nowhere, type Progress, type Remembered } from '../memory'
import { interactionElements } from './interactions'
import { pack, unpack } from './suspend'

/** The run-time API that a learning system puts beside a lesson (SCORM 1.2 Run-Time Environment, section 3.3). */
export interface Api {
  LMSInitialize(empty: ''): string | boolean
  LMSFinish(empty: ''): string | boolean
  LMSGetValue(element: string): string
  LMSSetValue(element: string, value: string): string | boolean
  LMSCommit(empty: ''): string | boolean
  LMSGetLastError(): string | number
  LMSGetErrorString(code: string): string
}

const mostParents = 500

/** Looks for the API as the standard describes (section 3.3.6.1): through the parents, then through the window that opened this one. */
export function findApi(start: Window): Api | undefined {
  return apiAbove(start) ?? (opener(start) ? apiAbove(opener(start) as Window) : undefined)
}

function apiAbove(start: Window): Api | undefined {
  let window: Window | undefined = start
  for (let i = 0; window && i <= mostParents; i++) {
    try {
      const api = (window as Window & { API?: Api }).API
      if (api) return api
      if (window.parent === window) return undefined
      window = window.parent
    } catch {
      // Another site's window may not be looked into; it has no API for this lesson either.
      return undefined
    }
  }
  return undefined
}

function opener(start: Window): Window | null {
  try {
    return start.top?.opener ?? start.opener
  } catch {
    return start.opener
  }
}

/** A span as the standard writes it (CMITimespan): hours with at least two digits, minutes, seconds with hundredths. */
export function timespan(ms: number): string {
  const hundredths = Math.min(Math.round(ms / 10), 9999 * 360_000 + 359_999)
  const two = (n: number) => String(Math.floor(n)).padStart(2, '0')
  return `${two(hundredths / 360_000).padStart(4, '0')}:${two((hundredths / 6000) % 60)}:${two((hundredths / 100) % 60)}.${two(hundredths % 100)}`
}

/** Progress that the learning system around the lesson keeps. */
export function inLearningSystem(api: Api | undefined, lesson: Remembered & Pick<Lesson, 'survey'>, now: () => number): Memory {
  if (!api) return nowhere('No learning system is around this page: the lesson plays, and nothing is recorded.')
  const began = now()
  let state: 'open' | 'looking on' | 'closed' = 'closed'
  let status = ''
  let trouble: string | undefined
  /** How many single answers the system has; null where it takes none. Asked with the first of them. */
  let interactions: number | null | undefined

  let surveyed = false

  const yes = (answer: unknown) => String(answer) === 'true'
  const call = <T>(what: () => T): T | undefined => {
    try {
      return what()
    } catch {
      trouble = 'The learning system’s connection failed: what is watched now may not be recorded.'
      return undefined
    }
  }
  const read = (element: string) => String(call(() => api.LMSGetValue(element)) ?? '')
  const refused = () => {
    const code = String(call(() => api.LMSGetLastError()) ?? '')
    const meaning = call(() => api.LMSGetErrorString(code))
    const why = code && code !== '0' ? ` (error ${code}${meaning ? `, ${meaning}` : ''})` : ''
    trouble = `The learning system did not take the record${why}. What is watched now may not be recorded.`
  }
  const write = (element: string, value: string) => {
    const answer = call(() => api.LMSSetValue(element, value))
    if (answer !== undefined && !yes(answer)) refused()
  }
  const send = () => {
    const answer = call(() => api.LMSCommit(''))
    if (answer !== undefined && !yes(answer)) refused()
  }

  function record(given: Interaction) {
    if (state !== 'open') return
    // Single answers are optional (section 3.4.7): a system that has none of them keeps points and state all the same.
    if (interactions === undefined) interactions = read('cmi.interactions._children') === '' ? null : Number.parseInt(read('cmi.interactions._count'), 10) || 0
    if (interactions === null) return
    for (const [element, value] of interactionElements(given, timespan(given.took), timeOfDay(new Date())))
      write(`cmi.interactions.${interactions}.${element}`, value)
    interactions++
  }

  return {
    async load(): Promise<Progress> {
      const started = call(() => api.LMSInitialize(''))
      if (!yes(started)) {
        trouble ??= 'The learning system did not let the lesson begin: the lesson plays, and nothing is recorded.'
        return { watched: [], position: 0 }
      }
      const mode = read('cmi.core.lesson_mode')
      status = read('cmi.core.lesson_status')
      const { watched, answers, surveyed: said } = unpack(read('cmi.suspend_data'), lesson.length) ?? { watched: [], answers: [], surveyed: false }
      surveyed = said
      const kept: Progress = {
        watched,
        answers,
        surveyed,
        ...(lesson.draws.length > 0 && { notAsked: notAsked(lesson.draws, read('cmi.core.student_id')) }),
        position: read('cmi.core.entry') === 'ab-initio' ? 0 : placeOf(read('cmi.core.lesson_location')),
        complete: status === 'completed' || status === 'passed',
        passed: status === 'passed' ? true : null,
      }
      state = mode === 'browse' || mode === 'review' ? 'looking on' : 'open'
      if (state === 'looking on') {
        if (mode === 'browse' && status === 'not attempted') write('cmi.core.lesson_status', 'browsed')
        return mode === 'review' ? { ...kept, position: 0 } : { ...kept, watched: [], answers: [], position: 0 }
      }
      if (!kept.complete && status !== 'incomplete') {
        status = 'incomplete'
        write('cmi.core.lesson_status', status)
        send()
      }
      return kept
    },
    save({ watched, position, complete, passed, answers, score }, leaving) {
      if (state === 'closed') return
      trouble = undefined
      if (state === 'open') {
        // A lesson that was completed or passed once stays so, whatever is watched again.
        const now = passed === true ? 'passed' : passed === false ? 'failed' : 'completed'
        if (complete && status !== now && status !== 'passed' && !(status === 'completed' && now === 'failed')) {
          status = now
          write('cmi.core.lesson_status', status)
        }
        if (score !== undefined) {
          for (const [element, value] of [
            ['raw', Math.round(score * 10_000) / 100],
            ['min', 0],
            ['max', 100],
          ] as const)
            write(`cmi.core.score.${element}`, String(value))
        }
        write('cmi.core.lesson_location', (position / 1000).toFixed(1))
        write('cmi.suspend_data', pack(watched, lesson.length, answers, surveyed))
        write('cmi.core.exit', status === 'incomplete' ? 'suspend' : '')
      }
      if (state === 'open' || leaving) {
        write('cmi.core.session_time', timespan(now() - began))
        send()
      }
      if (leaving) {
        state = 'closed'
        if (!yes(call(() => api.LMSFinish('')))) refused()
      }
    },
    record,
    async takeSurvey(values) {
      for (const item of lesson.survey?.items ?? []) {
        const answer = values[item.id]
        if (!answer?.length) continue
        const options = item.kind === 'choice' ? item.options.map((o) => o.id) : []
        record({ event: '', question: item.id, answer, took: 0, kind: item.kind, correct: [], options, targets: [], right: null, points: 0 })
      }
      surveyed = true
      return trouble ?? null
    },
    kept: () =>
      trouble ?? (state === 'looking on' ? 'This is a look at the lesson: nothing of it is recorded.' : 'The learning system records what you have seen.'),
  }
}

/** CMITime: HH:MM:SS.SS. */
function timeOfDay(at: Date): string {
  const two = (n: number) => String(n).padStart(2, '0')
  return `${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}.00`
}

function placeOf(location: string): number {
  return /^\d{1,7}(\.\d+)?$/.test(location) ? Math.round(Number(location) * 1000) : 0
}
