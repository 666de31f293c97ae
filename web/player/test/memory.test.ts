import { afterEach, expect, test, vi } from 'vitest'
import { inBrowser, onServer } from '../src/memory'

const stored = new Map<string, string>()
vi.stubGlobal('localStorage', { getItem: (name: string) => stored.get(name) ?? null, setItem: (name: string, value: string) => void stored.set(name, value) })
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
  expect(await inBrowser('lesson').load()).toEqual({ watched: [[0, 9_000]], position: 9_000 })
  memory.save({ watched: [[0, 12_000]], position: 12_000 }, true, true)
  await vi.waitFor(() => expect(sent).toHaveLength(2))
})
