import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useSearchParams } from 'react-router'
import { toast } from 'sonner'
import { api, Refused, type Schemas, taken } from '../app/api'
import type { Place } from '../deliver/places'
import type { SavedSet } from '../details/useSavedSet'
import { Button } from '../ui/Button'
import { CameBack } from './CameBack'
import { connect, useVideoAccounts, type VideoPlace } from './useVideoAccounts'

const box = 'border border-hairline bg-field px-1 py-0.5 text-ink'

interface Props {
  lessonId: string
  place: Place
  details: Schemas['DetailsAtOutlet'] | undefined
  said: SavedSet
}

/** Under which account, in which channel and in which playlists a lesson goes to a video service; at first where the last one went. */
export function PlaceThere({ lessonId, place, details, said }: Props) {
  const client = useQueryClient()
  const accounts = useVideoAccounts(place.id)
  const usable = accounts.data?.accounts.filter((a) => !a.withdrawn) ?? []
  const now = place.video?.place ?? undefined
  const [search] = useSearchParams()
  const [title, setTitle] = useState<string>()
  const [isOpen, setOpen] = useState(true)
  const changed = () => client.invalidateQueries({ queryKey: ['releases', lessonId] })
  const set = useMutation({
    mutationFn: (body: VideoPlace) =>
      taken(api.PUT('/api/lessons/{id}/video-places/{outletId}', { params: { path: { id: lessonId, outletId: place.id } }, body })),
    onError: (problem) => toast.error(problem.message),
    onSettled: changed,
  })
  // Where nobody said, it is where the last one went; or the one account that there is.
  const last = usable.find((a) => a.id === accounts.data?.last?.account)
  const first = last ?? usable[0]
  const { mutate } = set
  useEffect(() => {
    if (now || !first) return
    const channel = first.channels.find((c) => c.id === accounts.data?.last?.channel) ?? first.channels[0]
    if (channel) mutate({ account: first.id, channel: channel.id, lists: last ? (accounts.data?.last?.lists ?? []) : [] })
  }, [now, first, last, accounts.data, mutate])
  const begin = useMutation({ mutationFn: () => connect(place.id, lessonId), onError: (problem) => toast.error(problem.message) })
  const lists = useQuery({
    queryKey: ['video-lists', now?.account, now?.channel],
    queryFn: () => taken(api.GET('/api/video-accounts/{id}/lists', { params: { path: { id: now?.account ?? '' }, query: { channel: now?.channel ?? '' } } })),
    enabled: Boolean(now),
    retry: false,
  })
  // Only whoever asks there finds out that what Wexel may do was withdrawn.
  const found = lists.error instanceof Refused && lists.error.code
  useEffect(() => {
    if (found === 'video-service-withdrawn') client.invalidateQueries({ queryKey: ['video-accounts', place.id] })
  }, [found, client, place.id])
  const add = useMutation({
    mutationFn: (body: { channel: string; title: string; isOpen: boolean }) =>
      taken(api.POST('/api/video-accounts/{id}/lists', { params: { path: { id: now?.account ?? '' } }, body })),
    onSuccess: (list) => {
      setTitle(undefined)
      if (now) set.mutate({ ...now, lists: [...new Set([...now.lists, list.id])] })
      client.invalidateQueries({ queryKey: ['video-lists'] })
    },
    onError: (problem) => toast.error(problem.message),
  })
  if (!accounts.data) return null
  const category = (said.now.category ?? details?.values.category)?.toLocaleLowerCase()
  const known = place.video?.categories.find((c) => c.toLocaleLowerCase() === category)
  const cameBack = search.get('outlet') === place.id && <CameBack />
  if (usable.length === 0)
    return (
      <div className="mt-1 text-small">
        {cameBack}
        <p className="text-amber">
          {accounts.data.accounts.length === 0 ? 'No account is connected yet.' : 'Wexel may not act for any account any more.'}{' '}
          <Button look="link" disabled={begin.isPending} onClick={() => begin.mutate()}>
            {accounts.data.accounts.length === 0 ? 'Connect one' : 'Connect it again'}
          </Button>
        </p>
      </div>
    )
  const account = accounts.data.accounts.find((a) => a.id === now?.account)
  return (
    <div className="mt-1 flex flex-col gap-1 text-small">
      {cameBack}
      <p className="flex flex-wrap items-baseline gap-2">
        <select
          aria-label={`Account and channel at ${place.name}`}
          className={box}
          value={now ? `${now.account} ${now.channel}` : ''}
          onChange={(e) => {
            const [chosen = '', channel = ''] = e.target.value.split(' ')
            set.mutate({ account: chosen, channel, lists: [] })
          }}
        >
          {!now && <option value="">Choose an account</option>}
          {usable.flatMap((a) =>
            a.channels.map((c) => (
              <option key={`${a.id} ${c.id}`} value={`${a.id} ${c.id}`}>
                {a.name}, {c.name}
              </option>
            )),
          )}
          {account?.withdrawn && now && <option value={`${now.account} ${now.channel}`}>{account.name}, withdrawn</option>}
        </select>
        {account?.mostMinutes != null && <span className="text-quiet">at most {account.mostMinutes} minutes a video</span>}
        {now && details && (place.video?.categories.length ?? 0) > 0 && (
          <select
            aria-label={`Category at ${place.name}`}
            className={box}
            value={known ?? ''}
            onChange={(e) => said.change((before) => ({ ...before, category: e.target.value }))}
          >
            {!known && <option value="">Choose a category</option>}
            {place.video?.categories.map((c) => (
              <option key={c} value={c}>
                {c}
              </option>
            ))}
          </select>
        )}
      </p>
      {account?.withdrawn && (
        <p className="text-amber">
          Wexel may not act for “{account.name}” any more.{' '}
          <Button look="link" disabled={begin.isPending} onClick={() => begin.mutate()}>
            Connect it again
          </Button>
        </p>
      )}
      {lists.error && !account?.withdrawn && <p className="text-amber">{lists.error.message}</p>}
      {now && lists.data && (
        <fieldset className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <legend className="sr-only">Playlists at {place.name}</legend>
          <span className="text-quiet">Playlists</span>
          {lists.data.map((list) => (
            <label key={list.id} className="flex min-h-6 items-center gap-1.5">
              <input
                type="checkbox"
                className="h-4 w-4 accent-copper"
                checked={now.lists.includes(list.id)}
                onChange={(e) => set.mutate({ ...now, lists: e.target.checked ? [...now.lists, list.id] : now.lists.filter((l) => l !== list.id) })}
              />
              {list.title} {!list.isOpen && <span className="text-quiet">(unlisted)</span>}
            </label>
          ))}
          {title === undefined ? (
            <Button look="link" className="min-h-6 text-small" onClick={() => setTitle('')}>
              New playlist
            </Button>
          ) : (
            <span className="flex flex-wrap items-center gap-2">
              <input aria-label="Title of the new playlist" className={box} value={title} maxLength={100} onChange={(e) => setTitle(e.target.value)} />
              <label className="flex items-center gap-1.5">
                <input type="checkbox" className="h-4 w-4 accent-copper" checked={isOpen} onChange={(e) => setOpen(e.target.checked)} />
                everybody may see it
              </label>
              <Button look="link" onClick={() => add.mutate({ channel: now.channel, title, isOpen })} disabled={add.isPending}>
                Add it
              </Button>
              <Button look="link" onClick={() => setTitle(undefined)}>
                Rather not
              </Button>
            </span>
          )}
        </fieldset>
      )}
    </div>
  )
}
