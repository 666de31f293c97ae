import { expect, test } from 'vitest'
import { open, type Proposal, whyOf, withProposals } from './proposals'

const proposal = (at: number, title = 'T'): Proposal => ({ at, title, signs: ['pageChanged', 'pause'], pause: 2100, weight: 2 })

test('what speaks for a section is said in words', () => expect(whyOf(proposal(0))).toBe('the page changed, a pause of 2.1 s'))

test('what is there or was left is not proposed', () => {
  const all = [proposal(0), proposal(10_000), proposal(20_000)]
  expect(open(all, [{ id: 'a', at: 2_500, title: '', nested: false }], [17_500]).map((p) => p.at)).toEqual([10_000])
})

test('what is taken stands in its place', () => {
  const made = withProposals([{ id: 'a', at: 15_000, title: 'A', nested: true }], [proposal(20_000), proposal(10_000, 'New')], () => 'n')
  expect(made.map((s) => [s.at, s.title])).toEqual([
    [10_000, 'New'],
    [15_000, 'A'],
    [20_000, 'T'],
  ])
})
