import { describe, expect, it } from 'vitest'
import {
  asksForPermission,
  chosenAtFirst,
  inWay,
  isUnderWay,
  type Offer,
  type Place,
  phaseInWords,
  profilesAt,
  sayPlaces,
  sayWhatHappens,
  unfit,
  type Wish,
} from './places'

const way = (phase: string, more: object = {}) =>
  ({
    id: 'r',
    phase,
    since: '',
    problem: null,
    progress: null,
    sentBytes: 0,
    bytesToSend: null,
    profileId: 'web',
    visibility: 'withLink',
    ...more,
  }) as NonNullable<Place['way']>
const forGood = { named: { mails: [], groups: [] }, opensAt: null, endsAt: null }
const standing = (more: object = {}) => ({ behind: false, profileId: 'web', visibility: 'signedIn', ...more }) as NonNullable<Place['release']>
const place = (more: object = {}): Place =>
  ({
    id: 'p',
    name: 'Staff channel',
    usualProfile: 'web',
    refuses: [],
    unfit: [],
    whoMaySee: [{ visibility: 'signedIn', means: '' }],
    release: null,
    way: null,
    ...more,
  }) as unknown as Place
const offer = (id: string, more: object = {}): Offer =>
  ({ id, title: id, findings: [], nothingToEncode: false, estimate: { time: 60_000 }, ...more }) as unknown as Offer
const wish = (more: object = {}): Wish => ({ on: true, profileId: 'web', visibility: 'signedIn', ...forGood, ...more })

describe('a place', () => {
  it.each([
    [place(), { on: false, profileId: 'web', visibility: 'signedIn', ...forGood }],
    [place({ usualProfile: 'podcast-720p' }), { on: false, profileId: 'podcast-720p', visibility: 'signedIn', ...forGood }],
    [
      place({ release: standing({ behind: true, visibility: 'withLink', profileId: 'small' }) }),
      { on: true, profileId: 'small', visibility: 'withLink', ...forGood },
    ],
    [place({ release: standing() }), { on: false, profileId: 'web', visibility: 'signedIn', ...forGood }],
    [place({ way: way('failed') }), { on: true, profileId: 'web', visibility: 'withLink', ...forGood }],
    [place({ release: standing(), way: way('failed', { takesDown: true }) }), { on: false, profileId: 'web', visibility: 'withLink', ...forGood }],
  ])('is chosen where something is to be done: %#', (of, chosen) => {
    expect(chosenAtFirst(of)).toEqual(chosen)
  })

  it.each([
    [place(), wish(), undefined],
    [place({ way: way('sending') }), wish(), 'It is on its way there.'],
    [place({ way: way('sending', { takesDown: true }) }), wish(), 'It is being taken down.'],
    [place({ refuses: [{ profileId: 'web', sentence: 'Not that.' }] }), wish(), 'Not that.'],
    [place({ refuses: [{ profileId: 'web', sentence: 'Not that.' }] }), wish({ profileId: 'small' }), undefined],
    [place({ release: standing() }), wish(), 'It stands there as it is wanted.'],
    [place({ release: standing({ behind: true }) }), wish(), undefined],
    [place({ release: standing() }), wish({ profileId: 'small' }), undefined],
    [place({ release: standing() }), wish({ visibility: 'withLink' }), undefined],
    [place({ release: standing(), way: way('failed') }), wish(), undefined],
    [place({ way: way('failed') }), wish(), undefined],
    [place({ release: standing({ opensAt: '2026-12-03T09:00:00+00:00' }) }), wish({ opensAt: '2026-12-03T09:00:00.000Z' }), 'It stands there as it is wanted.'],
    [place({ release: standing() }), wish({ opensAt: '2026-12-03T09:00:00.000Z' }), undefined],
  ])('says what is in the way of it: %#', (of, wanted, why) => {
    expect(inWay(of, wanted, [offer('web'), offer('small')], [])).toBe(why)
  })

  it('is held by what it lacks, and by a profile that cannot be', () => {
    expect(inWay(place(), wish(), [], [{ code: 'detail-missing', sentence: 'A tag.', field: 'tags' }])).toBe('A tag.')
    const broken = offer('web', { findings: [{ isFault: true, sentence: 'Too small.' }] })
    expect(inWay(place(), wish(), [broken], [])).toBe('Too small.')
  })
})

describe('what must be known before', () => {
  it.each([
    [place(), wish({ visibility: 'withLink' }), true],
    [place(), wish(), false],
    [place({ release: standing() }), wish({ visibility: 'withLink' }), true],
    [place({ release: standing({ visibility: 'withLink' }) }), wish({ visibility: 'withLink' }), false],
    [place({ whoMaySee: [], isOpen: true }), wish(), true],
    [place({ whoMaySee: [], isOpen: true, release: standing() }), wish(), false],
    [place({ whoMaySee: [], isOpen: false }), wish(), false],
  ])('asks once whether there is material of others, before people outside can come: %#', (of, wanted, asked) => {
    expect(asksForPermission(of, wanted)).toBe(asked)
  })

  it('is what of what is handed on does not fit who may see it', () => {
    const of = place({ unfit: [{ visibility: 'signedIn', sentence: 'Only signed-in people can play it.' }] })
    expect([unfit(of, wish()), unfit(of, wish({ visibility: 'withLink' }))]).toEqual(['Only signed-in people can play it.', undefined])
  })
})

describe('what is said', () => {
  it.each([
    [[place(), place()], 0, 'none of 2 chosen'],
    [[place({ release: standing({ behind: true }) }), place()], 1, '1 of 2 chosen, 1 behind'],
  ])('of all places: %#', (places, chosen, words) => {
    expect(sayPlaces(places, chosen)).toBe(words)
  })

  it('of the press: files are rendered once, and what is held is named', () => {
    const [a, b, c] = [place({ id: 'a' }), place({ id: 'b' }), place({ id: 'c', name: 'Quay Video' })]
    const offers = [offer('web')]
    expect(sayWhatHappens([a, b], [], () => ['web'], offers)).toMatch(/^1 file is rendered; about 1:00 min in all\./)
    expect(sayWhatHappens([a], [c], () => ['web'], offers)).toMatch(/^Quay Video waits for what is missing\. 1 file/)
    expect(sayWhatHappens([a], [], () => ['web'], [offer('web', { nothingToEncode: true })])).toMatch(/^Nothing is rendered;/)
    expect(sayWhatHappens([a], [], () => ['web', 'small'], [offer('web', { nothingToEncode: true }), offer('small')])).toMatch(/^1 file is rendered;/)
    expect(sayWhatHappens([], [place({ release: standing() })], () => ['web'], offers)).toBe('Nothing is left to do for what is chosen.')
    expect(sayWhatHappens([], [place({ way: way('rendering') })], () => ['web'], offers)).toBe('Nothing is left to do for what is chosen.')
  })

  it.each([
    [{ mayDownload: true, downloadAs: 'small' }, ['downloadAs'], ['web', 'small']],
    [{ mayDownload: true, downloadAs: 'small' }, [], ['web']],
    [{ mayDownload: false, downloadAs: 'small' }, ['downloadAs'], ['web']],
    [{ mayDownload: true }, ['downloadAs'], ['web']],
  ])('which files a place gets: %#', (values, has, profiles) => {
    const rules = has.map((field) => ({ field, required: false, longest: null }))
    expect(profilesAt(wish(), { values, rules } as unknown as Parameters<typeof profilesAt>[1])).toEqual(profiles)
  })

  it.each([
    [way('sending', { sentBytes: 3_900_000, bytesToSend: 6_300_000 }), 'Sending, 3.9 MB of 6.3 MB'],
    [way('sending'), 'Sending'],
    [way('processingThere'), 'Sent; the other side makes it ready'],
    [way('live'), ''],
    [way('sending', { takesDown: true }), 'It is being taken down'],
    [way('failed', { takesDown: true }), 'It could not be taken down'],
    [way('takenDown', { takesDown: true }), 'Taken down'],
  ])('of a phase: %#', (of, words) => {
    expect(phaseInWords(of)).toBe(words)
  })

  it('of what is under way', () => {
    expect(['planned', 'rendering', 'checking', 'packing', 'sending', 'processingThere'].every((p) => isUnderWay(p as never))).toBe(true)
    expect(['live', 'behind', 'failed', 'takenDown', undefined].some((p) => isUnderWay(p as never))).toBe(false)
  })
})
