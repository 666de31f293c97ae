import { type Range, union } from './completion'
import { notAsked } from './draw'
import type { Lesson } from './lesson'

/** What is known of somebody's answers to a question. */
export interface AnswerKnown {
  question: string
  tries: number
  /** The best share of its points, 0 to 1. */
  share: number
  right: boolean
  answer: string[]
}

/** What was answered so far. */
export type Answers = readonly AnswerKnown[]

/** An answer that is given. */
export interface Given {
  /** What names it: sent twice, it counts once. */
  event: string
  question: string
  answer: string[]
  /** How long it took, in milliseconds. */
  took: number
}

/** What is said to an answer. */
export interface Judged {
  /** Whether it counted; not where no try was left. */
  counted: boolean
  right: boolean
  share: number
  says: string[]
  /** The right answer in words, where no try is left. */
  solution: string | null
  answers: Answers
}

/** What a learning system is told of an answer. */
export interface Interaction extends Given {
  kind: string
  /** The values that are right. */
  correct: readonly (readonly string[])[]
  /** Names of what can be taken, in the order in which a standard numbers them. */
  options: readonly string[]
  targets: readonly string[]
  /** Null where nothing is right or wrong. */
  right: boolean | null
  points: number
}

export interface Progress {
  watched: Range[]
  /** What was watched once more on this page. */
  again?: Range[]
  position: number
  /** Whether the place where it is kept holds the lesson for completed already. */
  complete?: boolean
  passed?: boolean | null
  answers?: Answers
  /** Whether somebody said what they think of the lesson. */
  surveyed?: boolean
  /** The questions that are not asked of this learner, where the lesson draws among them. */
  notAsked?: string[]
  /** The share of the points that was reached, 0 to 1; missing where there are none. */
  score?: number
}

/** Where a learner's progress is kept: with the server that the page came from, in a learning system, or in this browser alone. */
export interface Memory {
  load(): Promise<Progress>
  /** @param played Whether anything was played or answered on this page. Without, a memory that others write to as well has nothing to learn. */
  save(progress: Progress, leaving: boolean, played?: boolean): void
  /** What the learner should know of it, once it is loaded. */
  kept(): string | null
  /** Has an answer judged where the page does not know what is right; "later" where it is kept until there is a line again. */
  judge?(given: Given): Promise<Judged | 'later'>
  /** Calls the listener when answers that were kept for later have been judged. */
  judgedLater?(listener: (answers: Answers) => void): void
  /** Notes an answer that the page judged. */
  record?(interaction: Interaction): void
  /** Takes what somebody says about the lesson, item by item; gives what keeps it from being taken, or null. Missing where nobody takes it. */
  takeSurvey?(values: Record<string, string[]>): Promise<string | null>
}

/** What of a lesson a memory goes by. */
export type Remembered = Pick<Lesson, 'length' | 'draws'>

const none: Progress = { watched: [], position: 0 }

/** Nothing is kept, and the reason is said. */
export function nowhere(reason: string): Memory {
  return { load: async () => none, save: () => undefined, kept: () => reason }
}

/** What two know of answers: of each question what was answered more often, or later. */
export function together(before: Answers, after: Answers): AnswerKnown[] {
  const all = new Map(before.map((a) => [a.question, a]))
  for (const answer of after) if (answer.tries >= (all.get(answer.question)?.tries ?? 0)) all.set(answer.question, answer)
  return [...all.values()]
}

export function inBrowser(key: string, { length: lengthMs, draws }: Remembered = { length: Number.MAX_SAFE_INTEGER, draws: [] }): Memory {
  const name = `wexel:${key}`
  let works = true
  const read = (): Progress => {
    try {
      return { ...none, ...JSON.parse(localStorage.getItem(name) ?? '{}') }
    } catch {
      // Storage may be forbidden, or hold what another version wrote: the lesson plays all the same.
      return none
    }
  }
  return {
    load: async () => ({ ...read(), ...(draws.length > 0 && { notAsked: notAsked(draws, learnerKey()) }) }),
    save({ watched, position, answers, complete }, _leaving, played = true) {
      if (!played) return
      try {
        // Another window may have gone on with the same lesson.
        const before = read()
        const all = {
          watched: union([...before.watched, ...watched], lengthMs),
          position,
          answers: together(before.answers ?? [], answers ?? []),
          complete: before.complete || complete,
        }
        localStorage.setItem(name, JSON.stringify(all))
        works = true
      } catch {
        works = false
      }
    },
    kept: () =>
      works
        ? 'What you have seen is kept in this browser only.'
        : 'This browser keeps nothing here, since its storage is full or forbidden: what you have seen lasts as long as this page.',
  }
}

export function onServer(address: string, key: string): Memory {
  const local = inBrowser(key)
  const learner = learnerKey()
  const waiting = answersWaiting(key)
  // When the page was opened, as the server knows it: no more is believed to have been watched than time has passed.
  let opened: string | undefined
  let toldLater: (answers: Answers) => void = () => undefined
  const told = (state: { opened?: string }) => {
    opened ??= state.opened
  }
  const post = async (given: Given): Promise<Judged> => {
    const answer = await fetch(address.replace(/progress$/, 'answers'), {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ learner, ...given }),
    })
    // A server that is there and cannot just now is asked again later; one that does not take the answer never will.
    if (answer.status >= 500 || answer.status === 429) throw new Error(String(answer.status))
    const said = await answer.json()
    if (!answer.ok) return { counted: false, right: false, share: 0, says: [said.detail ?? said.title ?? ''], solution: null, answers: [] }
    return { ...said, answers: said.known.answers }
  }
  /** Sends what was kept for later, one after the other, until one does not go. */
  const sendWaiting = async () => {
    for (const given of waiting.all()) {
      try {
        const { answers } = await post(given)
        waiting.done(given)
        if (answers.length > 0) toldLater(answers)
      } catch {
        return
      }
    }
  }
  addEventListener('online', sendWaiting)
  return {
    async load() {
      await sendWaiting()
      try {
        const answer = await fetch(`${address}?learner=${encodeURIComponent(learner)}`)
        if (answer.ok) {
          const state = await answer.json()
          told(state)
          return state
        }
      } catch {
        // The server is not reached: what this browser knows will do until it is.
      }
      return local.load()
    },
    save({ watched, again, position, answers }, leaving, played = true) {
      if (!played) return
      local.save({ watched, position, answers }, leaving, played)
      const body = JSON.stringify({ learner, event: newName(), watched, again, position, opened })
      const blob = new Blob([body], { type: 'application/json' })
      if (leaving && navigator.sendBeacon(address, blob)) return
      // All ranges are sent each time, so a report that is lost is made up for by the next.
      fetch(address, { method: 'POST', body: blob, keepalive: body.length < 60_000 })
        .then(async (answer) => {
          if (answer.ok && opened === undefined) told(await answer.json())
          if (answer.ok) await sendWaiting()
        })
        .catch(() => undefined)
    },
    kept: () => null,
    async judge(given) {
      try {
        await sendWaiting()
        return await post(given)
      } catch {
        waiting.add(given)
        return 'later'
      }
    },
    judgedLater(listener) {
      toldLater = listener
    },
    async takeSurvey(values) {
      try {
        const answer = await fetch(address.replace(/progress$/, 'survey'), {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ learner, values }),
        })
        if (answer.ok) return null
        const said = await answer.json().catch(() => ({}))
        return said.detail ?? said.title ?? 'The server does not take it just now. Send it again in a minute.'
      } catch {
        return 'There is no line to the server. What you wrote stays here; send it again when there is one.'
      }
    },
  }
}

/** Answers that could not be sent, in the order in which they were given; kept over a reload where the browser lets us. */
function answersWaiting(key: string) {
  const name = `wexel:${key}:waiting`
  let here: Given[] = []
  try {
    here = JSON.parse(localStorage.getItem(name) ?? '[]')
  } catch {
    // No storage: they wait as long as the page stands.
  }
  const write = () => {
    try {
      if (here.length > 0) localStorage.setItem(name, JSON.stringify(here))
      else localStorage.removeItem(name)
    } catch {
      // They wait as long as the page stands.
    }
  }
  return {
    all: () => [...here],
    add(given: Given) {
      here.push(given)
      write()
    },
    done(given: Given) {
      here = here.filter((g) => g.event !== given.event)
      write()
    },
  }
}

/** 32 hexadecimal digits that nobody else makes; a page without a secure line has no randomUUID. */
export const newName = () => [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('')

let mine: string | undefined

/** By which the server knows this browser, where nobody is signed in. */
export function learnerKey(): string {
  mine ??= keyHere()
  return mine
}

function keyHere(): string {
  const made = newName()
  try {
    const known = localStorage.getItem('wexel:learner')
    if (known) return known
    localStorage.setItem('wexel:learner', made)
  } catch {
    // No storage: the key lasts as long as the page.
  }
  return made
}
