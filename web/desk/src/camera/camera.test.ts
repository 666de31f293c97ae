import { describe, expect, it } from 'vitest'
import type { Document } from '../lessons/useLesson'
import { inCamera, laid, lookOf, type Stretch, shownIn, without } from './camera'

const stretch = (id: string, start: number, end: number, shown: Stretch['shown'] = 'large'): Stretch => ({
  id,
  shown,
  span: { start, end, length: end - start },
})
const told = (all: Stretch[]) => all.map((s) => `${s.shown} ${s.span.start}-${s.span.end}`)
const lesson = { cameras: [], cameraStretches: [], cameraLook: null, houseMark: true } as unknown as Document

describe('stretches of a camera', () => {
  it('lie apart: what lies under a new one gives way', () => {
    const before = [stretch('a', 0, 4000), stretch('b', 6000, 9000, 'hidden')]
    expect(told(shownIn(before, { start: 3000, end: 7000 }, 'hidden', 'small', 'n'))).toEqual(['large 0-3000', 'hidden 3000-7000', 'hidden 7000-9000'])
    expect(told(shownIn(before, { start: 1000, end: 2000 }, 'hidden', 'small', 'n'))).toEqual([
      'large 0-1000',
      'hidden 1000-2000',
      'large 2000-4000',
      'hidden 6000-9000',
    ])
    const ids = shownIn(before, { start: 1000, end: 2000 }, 'hidden', 'small', 'n').map((s) => s.id)
    expect(new Set(ids).size).toBe(4)
  })

  it('are not needed where it is shown as usually, nor too short to be seen', () => {
    const before = [stretch('a', 0, 4000)]
    expect(told(shownIn(before, { start: 1000, end: 2000 }, 'small', 'small', 'n'))).toEqual(['large 0-1000', 'large 2000-4000'])
    expect(told(shownIn(before, { start: 100, end: 4000 }, 'small', 'small', 'n'))).toEqual([])
  })
})

describe('a camera', () => {
  it('takes another corner than the house mark, once', () => {
    expect(lookOf(laid(lesson, 'screen', 'camera', 'bottomRight')).corner).toBe('bottomLeft')
    expect(laid(lesson, 'screen', 'camera', 'topLeft').cameraLook).toBeNull()
    const again = laid({ ...laid(lesson, 'screen', 'camera', undefined), cameraLook: null }, 'screen', 'other', 'bottomRight')
    expect([again.cameras.map((c) => c.recording), lookOf(again).corner]).toEqual([['other'], 'bottomRight'])
  })

  it('goes with what was said of it', () => {
    const laidOver = { ...laid(lesson, 'screen', 'camera', undefined), cameraStretches: [stretch('a', 0, 1000)] }
    expect(without(laidOver, 'screen')).toMatchObject({ cameras: [], cameraStretches: [] })
  })

  it('has a clock of its own', () => {
    expect(inCamera({ starts: -2000, drift: 1000 }, 998_000)).toBeCloseTo(1_001_000, 3)
  })
})
