import { useQuery } from '@tanstack/react-query'
import type { CSSProperties } from 'react'
import { api, type Schemas, taken } from '../app/api'

type Size = Schemas['PictureSize']
type Placement = Schemas['MarkPlacement']

export function useHouse() {
  return useQuery({ queryKey: ['house'], queryFn: () => taken(api.GET('/api/house')) })
}

/** How the mark lies over a picture of a size: where it will be when it is rendered, worked out where renders are planned. */
export function useMarkStyle(placement: Placement | null | undefined, picture: Size | undefined, mark?: Size): CSSProperties | undefined {
  const box = useQuery({
    queryKey: ['mark-box', placement, picture, mark],
    enabled: placement != null && picture !== undefined,
    placeholderData: (before) => before,
    queryFn: () => taken(api.POST('/api/house/mark/box', { body: { placement: placement as Placement, picture: picture as Size, mark: mark ?? null } })),
  }).data
  if (!placement || !picture || !box) return undefined
  const share = (part: number, whole: number) => `${(100 * part) / whole}%`
  return {
    position: 'absolute',
    left: share(box.x, picture.width),
    top: share(box.y, picture.height),
    width: share(box.width, picture.width),
    height: share(box.height, picture.height),
    opacity: placement.opacityPercent / 100,
  }
}
