import { readFileSync } from 'node:fs'
import { createContext, runInContext } from 'node:vm'
import { Scorm12API } from 'scorm-again'
import { expect, test } from 'vitest'
import { type Api, inLearningSystem } from '../../web/player/src/runtimes/scorm12'

const source = readFileSync(new URL('../../src/Wexel.StandIns/Learning/runtime.js', import.meta.url), 'utf8')

interface Kept {
  elements?: Record<string, string>
  log?: { call: string; answer: string; error: string }[]
}
type Full = Api & { LMSGetDiagnostic(code: string): string }

/** The practice learning system's run-time as a launched page has it; `kept` is what it last sent to be kept. */
function launched(kept: Kept = {}, mode = 'normal', answers = 204) {
  const start = { pupil: { id: 'p1', name: 'Marr, Ilse' }, mode, page: '/page', keepAt: '/keep', kept }
  const found: { kept: Kept; beacons: number } = { kept, beacons: 0 }
  const window: { API?: Full } = {}
  class Request {
    status = answers
    open() {}
    setRequestHeader() {}
    send(body: string) {
      if (answers === 0) throw new Error('The page goes away')
      found.kept = JSON.parse(body)
    }
  }
  const beacon = (_: string, blob: Blob) => {
    found.beacons += 1
    return blob.size > 0
  }
  const document = { getElementById: () => ({ textContent: JSON.stringify(start) }), addEventListener() {} }
  runInContext(source, createContext({ window, document, XMLHttpRequest: Request, navigator: { sendBeacon: beacon }, Blob }))
  return { api: window.API as Full, found }
}
function begun(kept: Kept = {}, mode = 'normal') {
  const system = launched(kept, mode)
  expect(system.api.LMSInitialize('')).toBe('true')
  return system
}

// SCORM 1.2 Run-Time Environment, section 3.3.5: the states of a lesson, and the codes of what is asked at the wrong time.
test('nothing is answered before the beginning or after the end', () => {
  const { api } = launched()
  for (const ask of [
    () => api.LMSGetValue('cmi.core.lesson_status'),
    () => api.LMSSetValue('cmi.core.lesson_location', 'x'),
    () => api.LMSCommit(''),
    () => api.LMSFinish(''),
  ]) {
    expect(['', 'false']).toContain(ask())
    expect(api.LMSGetLastError()).toBe('301')
  }
  expect(api.LMSInitialize('x' as '')).toBe('false')
  expect(api.LMSGetLastError()).toBe('201')
  expect(api.LMSInitialize('')).toBe('true')
  expect(api.LMSInitialize('')).toBe('false')
  expect(api.LMSGetLastError()).toBe('101')
  expect(api.LMSFinish('')).toBe('true')
  expect(api.LMSCommit('')).toBe('false')
  expect(api.LMSGetLastError()).toBe('301')
  expect(api.LMSGetErrorString('301')).toBe('Not initialized')
})

// Section 3.4.4: the elements, who may read and write them, and their types. scorm-again is asked the same.
test.each([
  ['cmi.core.lesson_status', 'completed', '0'],
  ['cmi.core.lesson_status', 'done', '405'],
  ['cmi.core.lesson_location', 'x'.repeat(255), '0'],
  ['cmi.core.lesson_location', 'x'.repeat(256), '405'],
  ['cmi.suspend_data', 'x'.repeat(4096), '0'],
  ['cmi.core.exit', 'suspend', '0'],
  ['cmi.core.exit', '', '0'],
  ['cmi.core.exit', 'later', '405'],
  ['cmi.core.session_time', '0000:01:23.45', '0'],
  ['cmi.core.session_time', '83 s', '405'],
  ['cmi.core.score.raw', '87.5', '0'],
  ['cmi.core.score.raw', 'many', '405'],
  ['cmi.core.student_id', 'x', '403'],
  ['cmi.core.total_time', '0000:00:01.00', '403'],
  ['cmi.core.entry', 'resume', '403'],
  ['cmi.core.lesson_mode', 'review', '403'],
  ['cmi.core._children', 'x', '402'],
])('setting %s to a value is judged as scorm-again judges it', (element, value, error) => {
  const { api } = begun()
  const other = new Scorm12API({ autocommit: false, logLevel: 5 })
  other.LMSInitialize('')
  expect(api.LMSSetValue(element, value)).toBe(error === '0' ? 'true' : 'false')
  expect(api.LMSGetLastError()).toBe(error)
  other.LMSSetValue(element, value)
  expect(String(other.LMSGetLastError())).toBe(error)
})

test('the 4,096 characters of section 3.4.4 are held to, where scorm-again takes more', () => {
  const { api } = begun()
  expect(api.LMSSetValue('cmi.suspend_data', 'x'.repeat(4097))).toBe('false')
  expect(api.LMSGetLastError()).toBe('405')
})

test.each([
  ['cmi.core.student_name', 'Marr, Ilse', '0'],
  ['cmi.core.lesson_status', 'not attempted', '0'],
  ['cmi.core.entry', 'ab-initio', '0'],
  ['cmi.core.credit', 'credit', '0'],
  ['cmi.core.lesson_mode', 'normal', '0'],
  ['cmi.core.exit', '', '404'],
  ['cmi.core.session_time', '', '404'],
  ['cmi.core.score._children', 'raw,min,max', '0'],
  ['cmi.core.lesson_status._children', '', '202'],
  ['cmi.core._count', '', '203'],
  ['cmi.interactions._count', '0', '0'],
  ['cmi.nonsense', '', '201'],
])('reading %s gives %j with code %s', (element, value, error) => {
  const { api } = begun()
  expect(api.LMSGetValue(element)).toBe(value)
  expect(api.LMSGetLastError()).toBe(error)
})

test('times are summed by the system, and the way it was left decides how it is entered', () => {
  const { api, found } = begun({ elements: { 'cmi.core.total_time': '0001:59:50.50' } })
  api.LMSSetValue('cmi.core.lesson_status', 'incomplete')
  api.LMSSetValue('cmi.core.session_time', '0000:00:10.25')
  api.LMSSetValue('cmi.core.exit', 'suspend')
  expect(api.LMSFinish('')).toBe('true')
  expect(found.kept.elements).toMatchObject({ 'cmi.core.total_time': '0002:00:00.75', 'cmi.core.entry': 'resume', 'cmi.core.lesson_status': 'incomplete' })
  expect(begun(found.kept).api.LMSGetValue('cmi.core.entry')).toBe('resume')
})

test('a lesson that never says how it stands is completed when it ends', () => {
  const { api, found } = begun()
  api.LMSFinish('')
  expect(found.kept.elements).toMatchObject({ 'cmi.core.lesson_status': 'completed', 'cmi.core.entry': '' })
})

test('every call is kept with its answer and code', () => {
  const { api, found } = begun()
  api.LMSSetValue('cmi.core.lesson_status', 'done')
  api.LMSCommit('')
  expect(found.kept.log?.map((l) => [l.call, l.answer, l.error])).toContainEqual(['LMSSetValue("cmi.core.lesson_status", "done")', 'false', '405'])
})

test('what cannot be sent while the page goes away leaves by a beacon', () => {
  const { api, found } = launched({}, 'normal', 0)
  api.LMSInitialize('')
  expect(api.LMSCommit('')).toBe('true')
  expect(found.beacons).toBe(1)
})

test('Wexel’s player goes through it from a first launch to completion', async () => {
  const first = launched()
  let memory = inLearningSystem(first.api, { length: 100_000, survey: null, draws: [] }, () => 5000)
  await memory.load()
  memory.save({ watched: [[0, 40_000]], position: 40_000, complete: false }, true)
  const second = launched(first.found.kept)
  memory = inLearningSystem(second.api, { length: 100_000, survey: null, draws: [] }, () => 5000)
  expect(await memory.load()).toMatchObject({ watched: [[0, 40_000]], position: 40_000, complete: false })
  memory.save({ watched: [[0, 95_000]], position: 95_000, complete: true }, true)
  expect(second.found.kept.elements?.['cmi.core.lesson_status']).toBe('completed')
  expect(second.found.kept.log?.every((l) => l.error === '0')).toBe(true)
})

// SCORM 1.2 Run-Time Environment, section 3.4.7: single answers, in order, each element written and never read.
test('single answers are taken in order, by their types, and kept', () => {
  const { api, found } = begun()
  const set = (element: string, value: string) => [api.LMSSetValue(`cmi.interactions.${element}`, value), api.LMSGetLastError()]
  expect(api.LMSGetValue('cmi.interactions._children')).toContain('student_response')
  expect(set('1.id', 'q2')).toEqual(['false', '201'])
  expect(set('0.id', 'q1')).toEqual(['true', '0'])
  expect(set('0.type', 'essay')).toEqual(['false', '405'])
  expect(set('0.type', 'choice')).toEqual(['true', '0'])
  expect(set('0.correct_responses.0.pattern', '1')).toEqual(['true', '0'])
  expect(set('0.latency', '4 s')).toEqual(['false', '405'])
  expect(set('0.guess', '1')).toEqual(['false', '401'])
  expect(api.LMSGetValue('cmi.interactions.0.id')).toBe('')
  expect(api.LMSGetLastError()).toBe('404')
  expect(api.LMSGetValue('cmi.interactions._count')).toBe('1')
  api.LMSCommit('')
  expect(found.kept.elements?.['cmi.interactions.0.type']).toBe('choice')
  // The next launch goes on behind them.
  expect(begun(found.kept).api.LMSGetValue('cmi.interactions._count')).toBe('1')
})

test('Wexel’s player tells it each answer', async () => {
  const { api, found } = launched()
  const memory = inLearningSystem(api, { length: 100_000, survey: null, draws: [] }, () => 0)
  await memory.load()
  const answer = {
    event: 'e',
    question: 'q1',
    took: 900,
    kind: 'one',
    correct: [['b']],
    options: ['a', 'b'],
    targets: [],
    points: 1,
    right: true,
    answer: ['b'],
  }
  memory.record?.(answer)
  memory.record?.({ ...answer, question: 'q2', kind: 'gaps', answer: ['8', 'B'], correct: [['8'], ['B']] })
  memory.save({ watched: [], position: 0, complete: true, passed: true, score: 1, answers: [] }, true)
  expect(found.kept.log?.filter((l) => l.error !== '0')).toEqual([])
  expect(found.kept.elements).toMatchObject({ 'cmi.interactions.1.student_response': '8, B', 'cmi.core.lesson_status': 'passed', 'cmi.core.score.raw': '100' })
})
