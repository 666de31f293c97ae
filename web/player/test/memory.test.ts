import { afterEach, expect, test, vi } from 'vitest'
import { inBrowser, onServer } from '../src/memory'

const stored = new Map<string, string>()
const storage = {
  getItem: (name: string) => stored.get(name) ?? null,
  setItem: (name: string, value: string) => void stored.set(name, value),
  removeItem: (name: string) => void stored.delete(name),
}
vi.stubGlobal('localStorage', storage)
vi.stubGlobal('addEventListener', () => undefined)
afterEach(() => stored.clear())

test('a page on which nothing was played does not move the place that another one kept', async () => {
  const sent: string[] = []
  vi.stubGlobal('fetch', async (_: string, { body }: { body: Blob }) => {
    sent.push(await body.text())
    return new Response()
  })
  vi.stubGlobal('navigator', {
    sendBeacon: (_: string, body: Blob) => {
      body.text().then((text) => sent.push(text))
      return true
    },
  })
  const memory = onServer('/progress', 'lesson')
  memory.save({ watched: [[0, 9_000]], position: 9_000 }, false, true)
  onServer('/progress', 'lesson').save({ watched: [], position: 0 }, true, false)
  await vi.waitFor(() => expect(sent).toHaveLength(1))
  expect(JSON.parse(sent[0])).toMatchObject({ watched: [[0, 9_000]], position: 9_000 })
  expect(await inBrowser('lesson').load()).toEqual({ watched: [[0, 9_000]], position: 9_000, answers: [] })
  memory.save({ watched: [[0, 12_000]], position: 12_000 }, true, true)
  await vi.waitFor(() => expect(sent).toHaveLength(2))
})

const given = { event: 'e1', question: 'q1', answer: ['b'], took: 10 }
const known = { question: 'q1', tries: 1, share: 1, right: true, answer: ['b'] }
const judged = () => Response.json({ counted: true, right: true, share: 1, says: ['So it is.'], solution: null, known: { answers: [known], opened: 'o' } })

test('an answer that finds no line waits in the browser, over a reload, and is sent once when there is one', async () => {
  let line = false
  const sent: { event: string; path: string }[] = []
  vi.stubGlobal('fetch', async (path: string, init?: { body?: string | Blob }) => {
    if (!line) throw new TypeError('no line')
    if (typeof init?.body !== 'string') return Response.json({ watched: [], position: 0, answers: [known], opened: 'o' })
    sent.push({ event: JSON.parse(init.body).event, path })
    return judged()
  })
  const first = onServer('/watch/t/progress', 'lesson')
  expect(await first.judge?.(given)).toBe('later')
  const second = onServer('/watch/t/progress', 'lesson')
  let told: unknown
  second.judgedLater?.((answers) => {
    told = answers
  })
  line = true
  expect((await second.load()).answers).toEqual([known])
  expect(sent).toEqual([{ event: 'e1', path: '/watch/t/answers' }])
  expect(told).toEqual([known])
  await second.load()
  expect(sent).toHaveLength(1)
  expect(await second.judge?.({ ...given, event: 'e2' })).toMatchObject({ right: true, says: ['So it is.'], answers: [known] })
})

test('a server that is busy is asked later; one that does not take an answer says why', async () => {
  let status = 503
  vi.stubGlobal('fetch', async () => new Response('{"title":"x","detail":"That question is not asked any more."}', { status }))
  const memory = onServer('/watch/t/progress', 'busy')
  expect(await memory.judge?.(given)).toBe('later')
  status = 422
  const said = await memory.judge?.({ ...given, event: 'e3' })
  expect(said).toMatchObject({ counted: false, says: ['That question is not asked any more.'] })
  expect(stored.get('wexel:busy:waiting')).toBeUndefined()
})

test('a full or forbidden storage is said, and the lesson goes on', async () => {
  vi.stubGlobal('localStorage', {
    ...storage,
    setItem: () => {
      throw new DOMException('full', 'QuotaExceededError')
    },
  })
  const memory = inBrowser('full')
  expect(await memory.load()).toEqual({ watched: [], position: 0 })
  memory.save({ watched: [[0, 10]], position: 10, answers: [known] }, false)
  expect(memory.kept()).toContain('storage is full or forbidden')
  vi.stubGlobal('localStorage', storage)
  memory.save({ watched: [[0, 10]], position: 10, answers: [known] }, false)
  expect(memory.kept()).toBe('What you have seen is kept in this browser only.')
})

test('two windows add to what each of them keeps', async () => {
  const [one, other] = [inBrowser('two', { length: 60_000, draws: [] }), inBrowser('two', { length: 60_000, draws: [] })]
  one.save({ watched: [[0, 10_000]], position: 10_000, answers: [{ ...known, tries: 2 }] }, false)
  other.save(
    {
      watched: [[20_000, 30_000]],
      position: 30_000,
      answers: [
        { ...known, tries: 1, share: 0 },
        { ...known, question: 'q2' },
      ],
    },
    false,
  )
  const back = await one.load()
  expect(back.watched).toEqual([
    [0, 10_000],
    [20_000, 30_000],
  ])
  expect(back.answers).toEqual([
    { ...known, tries: 2 },
    { ...known, question: 'q2' },
  ])
})
