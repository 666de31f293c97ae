import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'

export type Profile = Schemas['Profile']
export type Picture = NonNullable<Profile['picture']>
export type Sound = NonNullable<Profile['sound']>

/** The values of settings in the trade's words, in the order in which they are offered. */
export const words = {
  container: {
    mp4: 'MP4',
    m4v: 'M4V, for podcast apps',
    mov: 'MOV, for editing',
    webm: 'WebM, open codecs',
    hls: 'HLS, in pieces, several sizes',
    m4a: 'M4A, sound alone',
    mp3: 'MP3, sound alone',
    opus: 'Opus, sound alone',
  },
  codec: { h264: 'H.264', vp9: 'VP9', av1: 'AV1' },
  h264Profile: { high: 'High', main: 'Main', constrainedBaseline: 'Constrained Baseline' },
  size: { asCanvas: 'as the canvas', atMostHeight: 'at most a height', exact: 'exact' },
  timing: { asDrawn: 'as drawn', asRecorded: 'as recorded', constant: 'constant' },
  rate: { quality: 'constant quality', average: 'a bit rate on average', constant: 'a constant bit rate', fileSize: 'a size of the file' },
  effort: { fastest: 'fastest', faster: 'faster', balanced: 'balanced', smaller: 'smaller', smallest: 'smallest' },
  soundCodec: { aac: 'AAC', opus: 'Opus', mp3: 'MP3' },
  channels: { asRecorded: 'as recorded', mono: 'mono', stereo: 'stereo' },
  captions: { none: 'none', beside: 'beside, as WebVTT', inside: 'inside, to switch on', burntIn: 'burnt in' },
} as const

/** What a person must know of a setting, from the published schema. */
export interface Note {
  title: string
  unit: string
  usual: string
  cost: string
}

interface SchemaNode {
  title?: string
  'x-unit'?: string
  'x-usual'?: string
  'x-cost'?: string
  properties?: Record<string, SchemaNode>
}

export function useNotes() {
  const schema = useQuery({
    queryKey: ['profile-schema'],
    queryFn: async () => (await (await fetch('/api/profiles/schema')).json()) as SchemaNode,
    staleTime: Number.POSITIVE_INFINITY,
  })
  return (path: string): Note | undefined => {
    const node = path.split('.').reduce<SchemaNode | undefined>((at, name) => at?.properties?.[name], schema.data)
    return node?.title ? { title: node.title, unit: node['x-unit'] ?? '', usual: node['x-usual'] ?? '', cost: node['x-cost'] ?? '' } : undefined
  }
}

/** Whether a lesson that is made with a profile is loaded piece by piece, and is no single file. */
export const inPieces = (profile: Profile) => profile.container === 'hls'

export function useProfiles() {
  return useQuery({ queryKey: ['profiles'], queryFn: () => taken(api.GET('/api/profiles')) })
}

/** A value that has not changed for a while. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, settle] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => settle(value), ms)
    return () => clearTimeout(timer)
  }, [value, ms])
  return settled
}
