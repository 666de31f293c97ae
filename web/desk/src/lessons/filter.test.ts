import { expect, test } from 'vitest'
import type { Schemas } from '../app/api'
import { choices, everything, filtered, nowhere, whereToGo } from './filter'

type Course = Schemas['CourseView']
type Lesson = Schemas['LessonRow']

const lesson = (id: string, more: Partial<Lesson>): Lesson => ({
  id,
  position: 1,
  title: id,
  fileName: `${id}.mp4`,
  length: 1000,
  revision: 1,
  stage: 'released',
  next: { stage: 'deliver', words: '' },
  shortTitle: null,
  author: null,
  releases: [],
  learners: 0,
  completed: 0,
  ...more,
})

const courses: Course[] = [
  {
    id: 'c1',
    title: 'Desk',
    description: '',
    lessons: [
      lesson('a', { author: 'Mara Tarn', releases: [{ outlet: 'Channel', behind: false } as Lesson['releases'][0]] }),
      lesson('b', {
        author: 'Joss Reed',
        releases: [
          { outlet: 'Channel', behind: true },
          { outlet: 'Feed', behind: false },
        ] as Lesson['releases'],
      }),
    ],
  },
  { id: 'c2', title: 'Deck', description: '', lessons: [lesson('d', { stage: 'brought in', next: { stage: 'tidy', words: 'Tidy it' } })] },
  { id: 'c3', title: 'Empty', description: '', lessons: [] },
]

const found = (f: Partial<typeof everything>) => filtered(courses, { ...everything, ...f }).flatMap((c) => c.lessons.map((l) => l.id))

test('all courses stand there where nothing is filtered, also one without lessons', () => {
  expect(filtered(courses, everything).map((c) => c.id)).toEqual(['c1', 'c2', 'c3'])
})

test('filters hold together', () => {
  expect(found({ stage: 'released' })).toEqual(['a', 'b'])
  expect(found({ outlet: 'Channel' })).toEqual(['a', 'b'])
  expect(found({ outlet: 'Channel', behind: true })).toEqual(['b'])
  expect(found({ outlet: 'Feed', behind: true })).toEqual([])
  expect(found({ behind: true })).toEqual(['b'])
  expect(found({ outlet: nowhere })).toEqual(['d'])
  expect(found({ author: 'Mara Tarn', stage: 'brought in' })).toEqual([])
  expect(filtered(courses, { ...everything, author: 'Mara Tarn' }).map((c) => c.id)).toEqual(['c1'])
})

test('what there is to choose is there once', () => {
  expect(choices(courses)).toEqual({ stages: ['brought in', 'released'], outlets: ['Channel', 'Feed'], authors: ['Joss Reed', 'Mara Tarn'] })
})

test('a lesson opens where its work stands', () => {
  expect(whereToGo(lesson('x', { next: { stage: 'bringIn', words: 'Give it a title' } }))).toBe('/lessons/x/bring-in')
  expect(whereToGo(lesson('x', { next: { stage: 'markUp', words: '' } }))).toBe('/lessons/x/mark-up')
})
