import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { clock, count, day } from '../ui/words'
import { kindOf } from './kinds'
import { added, drawn, type Question } from './questions'

const key = ['pool']

/** Keeps a question for reuse. */
export function useKeeping() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (question: Question) => taken(api.POST('/api/pool', { body: [question] })),
    onSuccess: () => {
      toast.success('It is in the pool. Questions that ask the same take its place.')
      return client.invalidateQueries({ queryKey: key })
    },
    onError: (refused) => toast.error(refused.message),
  })
}

/** Questions that are kept for reuse: chosen by tag and words, and asked here; all of them, or some of them of each learner. */
export function Pool({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { edit, playback, reel } = useWork()
  const client = useQueryClient()
  const pool = useQuery({ queryKey: key, queryFn: () => taken(api.GET('/api/pool')), enabled: open })
  const [tag, setTag] = useState('')
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [take, setTake] = useState(0)
  const remove = useMutation({
    mutationFn: (id: string) => taken(api.DELETE('/api/pool/{id}', { params: { path: { id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: key }),
    onError: (refused) => toast.error(refused.message),
  })
  const all = pool.data ?? []
  const tags = [...new Set(all.flatMap((p) => p.question.tags ?? []))].sort()
  const shown = all.filter((p) => (!tag || p.question.tags?.includes(tag)) && (!words || textOf(p.question).toLowerCase().includes(words.toLowerCase())))
  const picked = shown.filter((p) => chosen.has(p.id))
  const at = Math.min(Math.round(playback.now()), reel.length - 1)
  const ask = () => {
    edit((d) => {
      const placed = picked.reduce((sum, { question }) => added(sum, { ...question, id: crypto.randomUUID(), at }), d)
      return tag && take > 0 && take < picked.length ? drawn(placed, tag, take) : placed
    })
    setChosen(new Set())
    onClose()
  }
  return (
    <Dialog open={open} onClose={onClose} title="Questions from the pool">
      {pool.data && all.length === 0 ? (
        <p>Nothing is kept yet. “Keep in the pool” stands under each question in the sheet.</p>
      ) : (
        <>
          <div className="flex flex-wrap gap-x-4 gap-y-2">
            <label className="flex items-baseline gap-2">
              Tag
              <select value={tag} onChange={(e) => setTag(e.target.value)} className="border border-quiet/60 bg-field px-2 py-1">
                <option value="">all</option>
                {tags.map((one) => (
                  <option key={one} value={one}>
                    {one}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex flex-1 items-baseline gap-2">
              Words
              <input value={words} onChange={(e) => setWords(e.target.value)} className="min-w-0 flex-1 border border-quiet/60 bg-field px-2 py-1" />
            </label>
          </div>
          <ul className="mt-2 max-h-80 overflow-auto border-t border-hairline" aria-label="Questions in the pool">
            {shown.map((pooled) => (
              <li key={pooled.id} className="flex items-baseline gap-3 border-b border-hairline py-1.5">
                <label className="flex min-w-0 flex-1 items-baseline gap-2">
                  <input
                    type="checkbox"
                    checked={chosen.has(pooled.id)}
                    onChange={(e) => setChosen(new Set(e.target.checked ? [...chosen, pooled.id] : [...chosen].filter((id) => id !== pooled.id)))}
                  />
                  <span className="min-w-0 break-words">
                    {textOf(pooled.question)}{' '}
                    <span className="text-small text-quiet">
                      {[kindOf(pooled.question.asks.kind).name.toLowerCase(), ...(pooled.question.tags ?? []), `${pooled.keptBy}, ${day(pooled.keptAt)}`].join(
                        ' · ',
                      )}
                    </span>
                  </span>
                </label>
                <Button
                  look="link"
                  className="min-h-6"
                  aria-label={`Take “${textOf(pooled.question)}” out of the pool`}
                  onClick={() => remove.mutate(pooled.id)}
                >
                  Out
                </Button>
              </li>
            ))}
          </ul>
          <div className="mt-3 flex flex-wrap items-center gap-4">
            {picked.length === 0 ? (
              <p className="text-quiet">Choose those that are to be asked at {clock(at)}.</p>
            ) : (
              <>
                <Button onClick={ask}>
                  Ask {count(picked.length, 'question')} at {clock(at)}
                </Button>
                {tag && picked.length > 1 && <Take of={picked.length} take={take} set={setTake} />}
              </>
            )}
          </div>
        </>
      )}
    </Dialog>
  )
}

/** How many of some questions each learner is asked; 0 for all. */
export function Take({ of, take, set }: { of: number; take: number; set: (take: number) => void }) {
  return (
    <label className="flex items-baseline gap-2">
      each learner gets
      <select value={take >= of ? 0 : take} onChange={(e) => set(Number(e.target.value))} className="border border-quiet/60 bg-field px-2 py-0.5">
        <option value={0}>all {of}</option>
        {Array.from({ length: of - 1 }, (_, i) => i + 1).map((some) => (
          <option key={some} value={some}>
            {some} of {of}
          </option>
        ))}
      </select>
    </label>
  )
}

const textOf = (question: Schemas['Question']) => question.text || kindOf(question.asks.kind).name
