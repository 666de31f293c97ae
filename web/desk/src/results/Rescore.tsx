import { useMutation, useQueryClient } from '@tanstack/react-query'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { count } from '../ui/words'

/** Reckons what was answered again, as the question is released now: first what it would change, then it is done. */
export function Rescore({ lessonId, question }: { lessonId: string; question: string }) {
  const client = useQueryClient()
  const path = { params: { path: { id: lessonId, question } } }
  const look = useMutation({
    mutationFn: () => taken(api.GET('/api/lessons/{id}/results/questions/{question}/rescore', path)),
    onError: (refused) => toast.error(refused.message),
  })
  const rescore = useMutation({
    mutationFn: () => taken(api.POST('/api/lessons/{id}/results/questions/{question}/rescore', path)),
    onSuccess: (done) => {
      toast.success(`${count(done.changed, 'learner has', 'learners have')} other points now.`)
      look.reset()
      return client.invalidateQueries({ queryKey: ['results', lessonId] })
    },
    onError: (refused) => toast.error(refused.message),
  })
  if (!look.data)
    return (
      <Button look="link" className="text-small" onClick={() => look.mutate()}>
        Reckon the points again
      </Button>
    )
  const { changed, learners } = look.data
  return (
    <span role="status" className="text-small">
      {changed === 0 ? (
        `All ${learners} have the points that the question gives now.`
      ) : (
        <>
          As the question is released now, {count(changed, 'learner', 'learners')} of {learners} would have other points.{' '}
          <Button look="link" onClick={() => rescore.mutate()}>
            Give them those
          </Button>{' '}
          <Button look="link" onClick={() => look.reset()}>
            Leave them
          </Button>
        </>
      )}
    </span>
  )
}
