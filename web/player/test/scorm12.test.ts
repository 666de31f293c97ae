import { Scorm12API } from 'scorm-again'
import { expect, test } from 'vitest'
import { type Api, findApi, inLearningSystem, timespan } from '../src/scorm12'

const length = 100_000

/** The run-time of scorm-again, which knows the standard by itself, begun where an earlier session ended. */
function system(core: Record<string, string> = {}, suspend = '') {
  const api = new Scorm12API({ autocommit: false })
  api.loadFromJSON({ core: { lesson_status: 'not attempted', entry: 'ab-initio', ...core }, suspend_data: suspend } as never, 'cmi')
  return api
}
const kept = (api: Scorm12API, element: string) =>
  String((element.split('.').reduce((at: unknown, name) => (at as Record<string, unknown>)[name], { cmi: api.cmi }) ?? '') as string)
const open = (api: Api | Scorm12API | undefined, now = () => 0) => inLearningSystem(api as Api | undefined, length, now)

test('a first launch is incomplete until nine tenths were watched, then completed', async () => {
  const api = system()
  let clock = 0
  const memory = open(api, () => clock)
  expect(await memory.load()).toEqual({ watched: [], position: 0, complete: false })
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
  expect(await memory.load()).toEqual({ watched: [[1_000, 41_234]], position: 41_200, complete: false })
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
  expect(await memory.load()).toEqual({ watched: [], position: 0, complete: false })
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
