import type { Schemas } from '../app/api'
import type { Section } from '../lessons/useLesson'
import { lengthOf } from '../ui/words'

export type Proposal = Schemas['SectionProposal']

/** As near as this, a section is there already. In milliseconds. */
const near = 3000

const signs: Record<Exclude<Schemas['SectionSign'], 'pause'>, string> = {
  script: 'a heading of the script',
  pageChanged: 'the page changed',
  windowChanged: 'something opened',
  largestText: 'largest text on the screen',
  phrase: 'a new beginning in what is said',
  otherWords: 'other words from here on',
  recording: 'another recording begins',
  beginning: 'the beginning',
}

/** What speaks for it, in words. */
export const whyOf = (p: Proposal) => p.signs.map((s) => (s === 'pause' ? `a pause of ${lengthOf(p.pause)}` : signs[s])).join(', ')

/** Those that are neither there nor left. */
export function open(proposals: Proposal[], sections: Section[], left: number[]): Proposal[] {
  const isNear = (at: number) => (p: Proposal) => Math.abs(p.at - at) < near
  return proposals.filter((p) => !sections.some((s) => isNear(s.at)(p)) && !left.some((at) => isNear(at)(p)))
}

/** Sections with proposals among them. */
export function withProposals(sections: Section[], taken: Proposal[], newId: () => string): Section[] {
  return [...sections, ...taken.map((p) => ({ id: newId(), at: p.at, title: p.title, nested: false }))].sort((a, b) => a.at - b.at)
}
