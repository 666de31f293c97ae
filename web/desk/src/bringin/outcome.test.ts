import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { outcome } from './outcome'

interface View {
  problem?: { sentence: string } | null
  lessonId?: string | null
}

const refused = (status: number) => Promise.reject(Object.assign(new Error('refused'), { status }))
const waiting = () => Promise.resolve<View>({})

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
})

test('it is asked until the lesson is there, also where no answer came', async () => {
  const ask = vi
    .fn<() => Promise<View>>()
    .mockImplementationOnce(waiting)
    .mockImplementationOnce(() => refused(502))
    .mockImplementation(async () => ({ lessonId: 'a' }))
  const found = outcome(ask, new AbortController().signal)
  await vi.advanceTimersByTimeAsync(1000)
  expect(await found).toEqual({ lessonId: 'a' })
  expect(ask).toHaveBeenCalledTimes(3)
})

test('what is wrong with the file is an outcome', async () => {
  expect(await outcome<View>(async () => ({ problem: { sentence: 'No video in it.' } }), new AbortController().signal)).toEqual({
    problem: { sentence: 'No video in it.' },
  })
})

test('a file that the server does not know is not asked for again', async () => {
  const ask = vi.fn(() => refused(404))
  await expect(outcome<View>(ask, new AbortController().signal)).rejects.toThrow('refused')
  expect(ask).toHaveBeenCalledTimes(1)
})

test('after the page was left nobody is asked any more', async () => {
  const ask = vi.fn(waiting)
  const gone = new AbortController()
  const found = outcome(ask, gone.signal)
  await vi.advanceTimersByTimeAsync(1000)
  const asked = ask.mock.calls.length
  expect(asked).toBeGreaterThan(2)
  gone.abort()
  await vi.advanceTimersByTimeAsync(60_000)
  expect(await found).toBeUndefined()
  expect(ask).toHaveBeenCalledTimes(asked)
})

test('an answer that comes after the page was left is none', async () => {
  const gone = new AbortController()
  expect(
    await outcome<View>(async () => {
      gone.abort()
      return { lessonId: 'a' }
    }, gone.signal),
  ).toBeUndefined()
})
