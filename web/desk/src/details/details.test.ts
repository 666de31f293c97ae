import { describe, expect, it } from 'vitest'
import { type Field, inWords, isAsked, says, tagsOf, withDetail } from './details'

const field = (code: string, input: Field['input']): Field => ({ code, input, label: code, help: '', ofOneLesson: false, onlyWith: null })
const licences = [{ id: 'CC-BY-4.0', name: 'CC BY 4.0, Attribution', terms: null }]

describe('a set of details', () => {
  it('says only what somebody said', () => {
    expect(says({ mayEmbed: false }, 'mayEmbed')).toBe(true)
    expect(says({ fromAge: 0 }, 'fromAge')).toBe(true)
    expect(says({ tags: [] }, 'tags')).toBe(true)
    expect(says({ licence: null }, 'licence')).toBe(false)
    expect(says({}, 'licence')).toBe(false)
  })
  it('takes a detail, and gives it back', () => {
    expect(withDetail({ category: 'Deck' }, 'mayEmbed', false)).toEqual({ category: 'Deck', mayEmbed: false })
    expect(withDetail({ category: 'Deck', mayEmbed: false }, 'mayEmbed', undefined)).toEqual({ category: 'Deck' })
    expect(withDetail({ category: 'Deck' }, 'category', '')).toEqual({})
    expect(withDetail({}, 'tags', [])).toEqual({ tags: [] })
  })
})

describe('tags', () => {
  it.each([
    ['till, float', ['till', 'float']],
    [' till ,, float ,', ['till', 'float']],
    ['Till, till, TILL', ['Till']],
    ['opening  the   till', ['opening the till']],
    ['', []],
  ])('of “%s”', (text, tags) => {
    expect(tagsOf(text)).toEqual(tags)
  })
})

describe('a detail that goes with another', () => {
  it.each([
    [null, {}, {}, true],
    ['mayDownload', {}, {}, false],
    ['mayDownload', { mayDownload: true }, {}, true],
    ['mayDownload', {}, { mayDownload: true }, true],
    ['mayDownload', { mayDownload: false }, { mayDownload: true }, false],
  ])('%s: %o over %o', (onlyWith, own, inherited, asked) => {
    expect(isAsked({ ...field('downloadAs', 'profile'), onlyWith }, own, inherited)).toBe(asked)
  })
})

describe('a detail in words', () => {
  it.each([
    [field('tags', 'words'), { tags: ['till', 'float'] }, 'till, float'],
    [field('tags', 'words'), { tags: [] }, 'none'],
    [field('language', 'language'), { language: 'en-GB' }, 'British English'],
    [field('mayEmbed', 'yesNo'), { mayEmbed: false }, 'no'],
    [field('forChildren', 'yesNo'), { forChildren: true }, 'yes'],
    [field('fromAge', 'age'), { fromAge: 0 }, 'all ages'],
    [field('fromAge', 'age'), { fromAge: 16 }, '16 years'],
    [field('licence', 'licence'), { licence: 'CC-BY-4.0' }, 'CC BY 4.0, Attribution'],
    [field('licence', 'licence'), { licence: 'For our crews.' }, 'For our crews.'],
    [field('thirdParty', 'thirdParty'), { thirdParty: { used: true, permission: 'Tide tables by permission.' } }, 'Tide tables by permission.'],
    [field('thirdParty', 'thirdParty'), { thirdParty: { used: false, permission: '' } }, 'none'],
    [field('author', 'author'), { author: { name: 'Mara Tarn', contact: null } }, 'Mara Tarn'],
    [field('downloadAs', 'profile'), { downloadAs: 'web' }, 'Web, 720p'],
    [field('downloadAs', 'profile'), { downloadAs: 'other' }, 'one that is gone'],
    [field('category', 'line'), { category: 'Deck' }, 'Deck'],
    [field('category', 'line'), {}, undefined],
  ])('%o', (of, set, words) => {
    expect(inWords(of, set, { licences, profiles: [{ profile: { id: 'web', title: 'Web, 720p' } }] })).toBe(words)
  })
})
