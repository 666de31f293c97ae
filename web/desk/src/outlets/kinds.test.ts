import { describe, expect, it } from 'vitest'
import { isGeneral } from './kinds'

const channel = { name: 'channel', generalNames: ['training', 'videos'] } as unknown as Parameters<typeof isGeneral>[0]
const server = { name: 'web server', generalNames: [] as string[] } as unknown as Parameters<typeof isGeneral>[0]

describe('a name for everything', () => {
  it.each([
    ['Training', true],
    [' videos ', true],
    ['Training channel', true],
    ['Ticket desk training', false],
    ['Ticket desk', false],
    ['', false],
  ])('%s: %s', (name, general) => {
    expect(isGeneral(channel, name)).toBe(general)
    expect(isGeneral(server, name)).toBe(false)
  })
})
