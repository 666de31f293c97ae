import type { Lesson } from './lesson'
import type { Memory } from './memory'
import type { Panel } from './panels'
import type { Player } from './player'
import type { ShownCaptions } from './tracks'

/** What a part puts on the page. */
export interface Stands {
  /** Stands beside the picture, among contents and transcript. */
  panel?: Panel
  /** A line below what was seen of the lesson. */
  line?: HTMLElement
}

/**
 * A part of the player that only some lessons need, in a script of its own; which pages load it is said in Wexel.Core.Packages.PlayerPart. It is given the
 * player and hears of everything else by the player's events.
 */
export interface Part {
  /** Puts itself on the page, before the page is put together. */
  start?(player: Player): Stands | undefined
  /** Puts captions on the picture; the bar and the keys choose among them. */
  captions?(player: Player): ShownCaptions
  /** Where progress is kept, by the name of the run-time that the page is made for. */
  runtimes?: Record<string, (lesson: Lesson) => Memory>
}

const registered = () => {
  const page = window as typeof window & { wexelParts?: Part[] }
  page.wexelParts ??= []
  return page.wexelParts
}

/** Called by a part's script, which stands before the player's own. */
export const addPart = (part: Part) => registered().push(part)

/** The parts that the page has loaded. */
export const parts = (): readonly Part[] => registered()
