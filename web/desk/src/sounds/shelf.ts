import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, sent, taken } from '../app/api'

export type Shelved = Schemas['ShelvedView']
export type ShelfSound = Schemas['ShelfSound']
export type TakenSound = Schemas['TakenSound']
export type Order = 'title' | 'length' | 'tempo' | 'author'

/** What is looked for on the shelf. */
export interface Query {
  use: Schemas['SoundUse']
  genre: string[]
  mood: string[]
  length: string[]
  words: string
  order: Order
}

export const anything = (use: Query['use']): Query => ({ use, genre: [], mood: [], length: [], words: '', order: 'title' })

const key = ['sounds']

export const useShelf = (query: Query) =>
  useQuery({
    queryKey: [...key, query],
    queryFn: () => taken(api.GET('/api/sounds', { params: { query } })),
    placeholderData: (before) => before,
  })

/** Putting a file on the shelf, changing what is said of it, and taking it off. */
export function useKeeping() {
  const client = useQueryClient()
  const changed = () => client.invalidateQueries({ queryKey: key })
  const complain = (refused: Error) => toast.error(refused.message)
  return {
    take: useMutation({ mutationFn: (file: File) => sent<TakenSound>('/api/sounds/file', file), onError: complain }),
    put: useMutation({ mutationFn: (sound: Shelved['sound']) => taken(api.PUT('/api/sounds', { body: sound })), onSuccess: changed }),
    remove: useMutation({
      mutationFn: (sound: string) => taken(api.DELETE('/api/sounds/{key}', { params: { path: { key: sound } } })),
      onSuccess: changed,
      onError: complain,
    }),
  }
}

export const addressOf = (sound: string) => `/api/sounds/${sound}.flac`

/** Listening to one sound at a time. */
export function useListening() {
  const [playing, setPlaying] = useState<string>()
  const [player] = useState(() => new Audio())
  const stop = () => {
    player.pause()
    setPlaying(undefined)
  }
  return {
    playing,
    stop,
    toggle(sound: string) {
      if (playing === sound) return stop()
      player.src = addressOf(sound)
      player.onended = () => setPlaying(undefined)
      player.onerror = () => {
        setPlaying(undefined)
        toast.error('The sound cannot be fetched. Load the page again.')
      }
      setPlaying(sound)
      player.play().catch(() => undefined)
    },
  }
}
