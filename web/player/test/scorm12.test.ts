import { Scorm12API } from 'scorm-again'
import { expect, test } from 'vitest'
import { type Api, findApi, inLearningSystem, timespan } from '../src/runtimes/scorm12'

const length = 100_000

/** The run-time of scorm-again, which knows the standard by itself, begun where an earlier session ended. */
function system(core: Record<string, string> = {}, suspend = '') {
  const api = new Scorm12API({ autocommit: false })
  api.loadFromJSON({ core: { lesson_status: 'not attempted', entry: 'ab-initio', ...core }, suspend_data: suspend } as never, 'cmi')
  return api
}
const kept = (api: Scorm12API, element: string) =>
  String((element.split('.').reduce((at: unknown, name) => (at as Record<string, unknown>)[name], { cmi: api.cmi }) ?? '') as string)
const open = (api: Api | Scorm12API | undefined, now = () => 0) => inLearningSystem(api as Api | undefined, { length, survey: null, draws: [] }, now)

test('a first launch is incomplete until nine tenths were watched, then completed', async () => {
  const api = system()
  let clock = 0
  const memory = open(api, () => clock)
  expect(await memory.load()).toMatchObject({ watched: [], position: 0, complete: false })
  expect(kept(api, 'cmi.core.lesson_status')).toBe('incomplete')
  expect(memory.kept()).toBe('The learning system records what you have seen.')

  clock = 83_450
  memory.save({ watched: [[0, 50_000]], position: 50_000, complete: false }, false)
  expect(kept(api, 'cmi.core.lesson_location')).toBe('50.0')
  expect(kept(api, 'cmi.suspend_data')).toMatch(/^w1;/)
  memory.save({ watched: [[0, 95_000]], position: 95_000, complete: true }, true)
  expect(kept(api, 'cmi.core.lesson_status')).toBe('completed')
  // The total is the system's own sum; the lesson only says how long this session was.
  expect(api.cmi.core.getCurrentTotalTime(undefined)).toBe('00:01:23.45')
  expect(api.isTerminated()).toBe(true)
  expect(memory.kept()).toBe('The learning system records what you have seen.')
})

test('a resumed one goes on with what was watched, at its place', async () => {
  const before = system()
  const first = open(before)
  await first.load()
  first.save({ watched: [[1_000, 41_234]], position: 41_234, complete: false }, false)
  const data = kept(before, 'cmi.suspend_data')

  const memory = open(system({ lesson_status: 'incomplete', entry: 'resume', lesson_location: '41.2' }, data))
  expect(await memory.load()).toMatchObject({ watched: [[1_000, 41_234]], position: 41_200, complete: false })
})

test('a lesson that is completed or passed is never made less', async () => {
  for (const status of ['completed', 'passed']) {
    const api = system({ lesson_status: status, entry: '' })
    const memory = open(api)
    expect((await memory.load()).complete).toBe(true)
    memory.save({ watched: [[0, 10]], position: 10, complete: true }, true)
    expect(kept(api, 'cmi.core.lesson_status')).toBe(status)
  }
})

test('a failed or browsed one is taken up as incomplete', async () => {
  for (const status of ['failed', 'browsed']) {
    const api = system({ lesson_status: status })
    await open(api).load()
    expect(kept(api, 'cmi.core.lesson_status')).toBe('incomplete')
  }
})

test.each(['browse', 'review'])('in %s mode nothing is recorded', async (mode) => {
  const api = system({ lesson_mode: mode, lesson_status: 'incomplete', lesson_location: '7.0' }, 'w1;1;0.1')
  const memory = open(api)
  expect((await memory.load()).position).toBe(0)
  memory.save({ watched: [[0, 99_000]], position: 99_000, complete: true }, true)
  expect(kept(api, 'cmi.core.lesson_status')).toBe('incomplete')
  expect(kept(api, 'cmi.core.lesson_location')).toBe('7.0')
  expect(kept(api, 'cmi.suspend_data')).toBe('w1;1;0.1')
  expect(open(api).kept()).not.toBe('')
})

test('what another version kept does no harm', async () => {
  const memory = open(system({ lesson_status: 'incomplete', lesson_location: 'chapter-3' }, '{"v":9}'))
  expect(await memory.load()).toMatchObject({ watched: [], position: 0, complete: false })
})

const answering = (answer: string, error = '0'): Api => ({
  LMSInitialize: () => 'true',
  LMSFinish: () => answer,
  LMSGetValue: () => '',
  LMSSetValue: () => answer,
  LMSCommit: () => answer,
  LMSGetLastError: () => error,
  LMSGetErrorString: () => 'Incorrect data type',
})

test('a system that is missing, throws, or answers false is said, and the lesson plays', async () => {
  const none = open(undefined)
  await none.load()
  none.save({ watched: [], position: 0 }, true)
  expect(none.kept()).toBe('No learning system is around this page: the lesson plays, and nothing is recorded.')

  const broken = new Proxy({} as Api, {
    get: () => () => {
      throw new Error('gone')
    },
  })
  const throwing = open(broken)
  expect(await throwing.load()).toEqual({ watched: [], position: 0 })
  expect(throwing.kept()).toContain('connection failed')

  const closed = open({ ...answering('false'), LMSInitialize: () => 'false' })
  await closed.load()
  expect(closed.kept()).toContain('did not let the lesson begin')

  const refusing = open(answering('false', '405'))
  await refusing.load()
  refusing.save({ watched: [], position: 0 }, false)
  expect(refusing.kept()).toBe('The learning system did not take the record (error 405, Incorrect data type). What is watched now may not be recorded.')
})

test('a system that answers with a real true is understood', async () => {
  const memory = open({ ...answering('true'), LMSInitialize: () => true })
  await memory.load()
  expect(memory.kept()).toBe('The learning system records what you have seen.')
})

test('the API is found in a parent, at the opener, and not across sites', () => {
  const api = answering('true')
  const top = { opener: null } as unknown as Window & { API?: Api }
  Object.assign(top, { parent: top, top })
  const child = { parent: top, top, opener: null } as unknown as Window
  expect(findApi(child)).toBeUndefined()
  top.API = api
  expect(findApi(child)).toBe(api)

  const popup = { opener: child } as unknown as Window
  Object.assign(popup, { parent: popup, top: popup })
  expect(findApi(popup)).toBe(api)

  const strange = new Proxy({} as Window, {
    get: () => {
      throw new DOMException('Blocked', 'SecurityError')
    },
  })
  expect(findApi({ parent: strange, top: strange, opener: null } as unknown as Window)).toBeUndefined()
})

// SCORM 1.2 Run-Time Environment, section 3.4.2.1.2: CMITimespan, HHHH:MM:SS.SS.
test.each([
  [0, '0000:00:00.00'],
  [83_450, '0000:01:23.45'],
  [59_999, '0000:01:00.00'],
  [3_600_000 * 26 + 5, '0026:00:00.01'],
  [1e15, '9999:59:59.99'],
])('%d ms is written as %s', (ms, text) => expect(timespan(ms)).toBe(text))

const one = {
  event: 'e',
  question: 'q1',
  took: 4_200,
  kind: 'one',
  correct: [['b']],
  options: ['a', 'b', 'c'],
  targets: [],
  points: 2,
  right: false,
  answer: ['c'],
}

test('answers are told as interactions, from the first launch over a resumed one to passed', async () => {
  const before = system()
  const first = open(before)
  await first.load()
  first.record?.(one)
  const answers = [{ question: 'q1', tries: 1, share: 0, right: false, answer: ['c'] }]
  first.save({ watched: [[0, 5_000]], position: 5_000, complete: false, passed: null, answers, score: 0 }, true)
  expect(kept(before, 'cmi.core.lesson_status')).toBe('incomplete')
  const told = (api: Scorm12API, n: number) => (api.cmi.interactions.childArray[n] as unknown as { toJSON(): object }).toJSON()
  expect(told(before, 0)).toMatchObject({ id: 'q1', type: 'choice', result: 'wrong' })
  expect(api12(before, 'cmi.interactions.0.correct_responses._count')).toBe('1')

  const again = system({ lesson_status: 'incomplete', entry: 'resume' }, kept(before, 'cmi.suspend_data'))
  const second = open(again)
  expect((await second.load()).answers).toEqual(answers)
  second.record?.({ ...one, right: true, answer: ['b'] })
  second.save(
    {
      watched: [[0, 99_000]],
      position: 99_000,
      complete: true,
      passed: true,
      answers: [{ ...answers[0], tries: 2, share: 1, right: true, answer: ['b'] }],
      score: 0.875,
    },
    true,
  )
  expect([kept(again, 'cmi.core.lesson_status'), kept(again, 'cmi.core.score.raw'), kept(again, 'cmi.core.score.max')]).toEqual(['passed', '87.5', '100'])
  expect(told(again, 0)).toMatchObject({ id: 'q1', result: 'correct' })
  expect(second.kept()).toBe('The learning system records what you have seen.')
})

/** Asks as a lesson would. */
const api12 = (api: Scorm12API, element: string) => String(api.lmsGetValue(element))

// SCORM 1.2 Run-Time Environment, section 3.4.7: each type has a pattern of its own.
test.each([
  ['one', ['b'], [['b']], 'choice', '1', '1'],
  ['several', ['a', 'c'], [['a', 'b']], 'choice', '0,1', '0,2'],
  ['truth', ['false'], [['true']], 'true-false', 't', 'f'],
  ['text', ['Gangway'], [['gangway']], 'fill-in', 'gangway', 'Gangway'],
  ['number', ['7,4 m'], [['7.4']], 'numeric', '7.4', '7.4'],
  ['order', ['c', 'a', 'b'], [['a', 'b', 'c']], 'sequencing', '0,1,2', '2,0,1'],
  ['match', ['a y', 'b x'], [['a x', 'b y']], 'matching', '0.0,1.1', '0.1,1.0'],
  ['gaps', ['8', 'C'], [['8'], ['B']], 'fill-in', '8, B', '8, C'],
  ['place', ['100 200'], [['120 210']], 'performance', '120 210', '100 200'],
])('%s is told as a learning system knows it', async (kind, answer, correct, type, pattern, response) => {
  const api = system()
  const memory = open(api)
  await memory.load()
  memory.record?.({ ...one, kind, answer, correct, options: ['a', 'b', 'c'], targets: ['x', 'y'] })
  expect(memory.kept()).toBe('The learning system records what you have seen.')
  const told = api.cmi.interactions.childArray[0] as unknown as { toJSON(): { correct_responses: { childArray: { toJSON(): object }[] } } }
  expect(told.toJSON()).toMatchObject({
    id: 'q1',
    type,
    weighting: '2',
    student_response: response,
    result: 'wrong',
    latency: expect.stringMatching(/00:00:04.20$/),
  })
  expect(told.toJSON().correct_responses.childArray[0].toJSON()).toEqual({ pattern })
})

test('whoever has failed is told so, and one who completed before stays complete', async () => {
  const api = system()
  const memory = open(api)
  await memory.load()
  memory.save({ watched: [], position: 0, complete: true, passed: false, answers: [], score: 0.2 }, false)
  expect(kept(api, 'cmi.core.lesson_status')).toBe('failed')
  const done = system({ lesson_status: 'completed', entry: '' })
  const second = open(done)
  await second.load()
  second.save({ watched: [], position: 0, complete: true, passed: false, answers: [], score: 0.2 }, false)
  expect(kept(done, 'cmi.core.lesson_status')).toBe('completed')
})

test('a system that takes no single answers keeps the points, and nothing is wrong', async () => {
  const api = system()
  const without = new Proxy(api, {
    get: (of, name) =>
      name === 'LMSGetValue' ? (element: string) => (element.startsWith('cmi.interactions') ? '' : of.lmsGetValue(element)) : Reflect.get(of, name).bind(of),
  })
  const memory = open(without as unknown as Api)
  await memory.load()
  memory.record?.(one)
  memory.save({ watched: [], position: 0, complete: false, answers: [], score: 0.5 }, false)
  expect(kept(api, 'cmi.core.score.raw')).toBe('50')
  expect(api.cmi.interactions.childArray).toHaveLength(0)
  expect(memory.kept()).toBe('The learning system records what you have seen.')
})

// SCORM 1.2 Run-Time Environment, section 3.4.7: what nobody can be right in is neutral, a scale is "likert".
test('what somebody says of a lesson is recorded as interactions, once, and known after resuming', async () => {
  const survey = {
    title: '',
    named: true,
    items: [
      { kind: 'scale' as const, id: 'i1', text: 'It helps', steps: 5, low: 'no', high: 'yes' },
      {
        kind: 'choice' as const,
        id: 'i2',
        text: 'Use it',
        several: true,
        options: [
          { id: 'a', text: 'today' },
          { id: 'b', text: 'later' },
        ],
      },
      { kind: 'comment' as const, id: 'i3', text: 'Missing?' },
      { kind: 'comment' as const, id: 'i4', text: 'More?' },
    ],
  }
  const api = system()
  const memory = inLearningSystem(api as unknown as Api, { length, survey, draws: [] }, () => 0)
  expect((await memory.load()).surveyed).toBe(false)
  expect(await memory.takeSurvey?.({ i1: ['4'], i2: ['b', 'a'], i3: ['The keys.'] })).toBeNull()
  const told = api.cmi.interactions.childArray.map((i) => (i as unknown as { toJSON(): object }).toJSON())
  expect(told).toMatchObject([
    { id: 'i1', type: 'likert', student_response: '4', result: 'neutral' },
    { id: 'i2', type: 'choice', student_response: '1,0', result: 'neutral' },
    { id: 'i3', type: 'fill-in', student_response: 'The keys.', result: 'neutral' },
  ])
  memory.save({ watched: [[0, 10]], position: 0, complete: false, answers: [] }, true)
  const resumed = inLearningSystem(system({ entry: 'resume' }, kept(api, 'cmi.suspend_data')) as unknown as Api, { length, survey, draws: [] }, () => 0)
  expect(await resumed.load()).toMatchObject({ surveyed: true, watched: [[0, 10]], answers: [] })
})

test('where questions are drawn, the same learner is always asked the same', async () => {
  const draws = [{ of: ['a', 'b', 'c', 'd'], take: 2 }]
  const asked = async (student: string) => {
    const memory = inLearningSystem(system({ student_id: student }) as unknown as Api, { length, survey: null, draws }, () => 0)
    return (await memory.load()).notAsked
  }
  expect(await asked('s-1')).toHaveLength(2)
  expect(await asked('s-1')).toEqual(await asked('s-1'))
  const all = await Promise.all(Array.from({ length: 20 }, (_, i) => asked(`s-${i}`)))
  expect(new Set(all.map(String)).size).toBeGreaterThan(3)
})
