import type { Range } from './completion'

export interface Progress {
  watched: Range[]
  position: number
  /** Whether the place where it is kept holds the lesson for completed already. */
  complete?: boolean
}

/** Where a learner's progress is kept: with the server that the page came from, in a learning system, or in this browser alone. */
export interface Memory {
  load(): Promise<Progress>
  /** @param played Whether anything was played on this page. Without, a memory that others write to as well has nothing to learn. */
  save(progress: Progress, leaving: boolean, played?: boolean): void
  /** What the learner should know of it, once it is loaded. */
  kept(): string | null
}

const none: Progress = { watched: [], position: 0 }

/** Nothing is kept, and the reason is said. */
export function nowhere(reason: string): Memory {
  return { load: async () => none, save: () => undefined, kept: () => reason }
}

export function inBrowser(key: string): Memory {
  const name = `wexel:${key}`
  return {
    async load() {
      try {
        return { ...none, ...JSON.parse(localStorage.getItem(name) ?? '{}') }
      } catch {
        // Storage may be forbidden, or hold what another version wrote: the lesson plays all the same.
        return none
      }
    },
    save({ watched, position }, _leaving, played = true) {
      if (!played) return
      try {
        localStorage.setItem(name, JSON.stringify({ watched, position }))
      } catch {
        // Forbidden or full: there is nothing to remember with.
      }
    },
    kept: () => 'What you have seen is kept in this browser only.',
  }
}

export function onServer(address: string, key: string): Memory {
  const local = inBrowser(key)
  const learner = learnerKey()
  // When the page was opened, as the server knows it: no more is believed to have been watched than time has passed.
  let opened: string | undefined
  const told = (state: { opened?: string }) => {
    opened ??= state.opened
  }
  return {
    async load() {
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
    save({ watched, position }, leaving, played = true) {
      if (!played) return
      local.save({ watched, position }, leaving, played)
      const body = JSON.stringify({ learner, event: newName(), watched, position, opened })
      const blob = new Blob([body], { type: 'application/json' })
      if (leaving && navigator.sendBeacon(address, blob)) return
      // All ranges are sent each time, so a report that is lost is made up for by the next.
      fetch(address, { method: 'POST', body: blob, keepalive: body.length < 60_000 })
        .then(async (answer) => {
          if (answer.ok && opened === undefined) told(await answer.json())
        })
        .catch(() => undefined)
    },
    kept: () => null,
  }
}

/** 32 hexadecimal digits that nobody else makes; a page without a secure line has no randomUUID. */
const newName = () => [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('')

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
