import { useQuery } from '@tanstack/react-query'
import { api, type Schemas, taken } from '../app/api'
import { useWork } from '../lessons/work'

/** What is others' in what is seen and heard, as far as that is known: said before people outside the house can come to a lesson. */
export function Rights({ lessonId, revision }: { lessonId: string; revision: number }) {
  const notice = useQuery({
    queryKey: ['rights', lessonId, revision],
    queryFn: () => taken(api.GET('/api/lessons/{id}/rights', { params: { path: { id: lessonId } } })),
    placeholderData: (before) => before,
  }).data
  if (!notice) return null
  return (
    <section aria-label="Rights in what is seen and heard" className="my-2">
      <p>They see and hear all of it. See that the house may show it:</p>
      <Lines name="Seen" of={notice.seen} />
      <Lines name="Heard" of={notice.heard} />
    </section>
  )
}

function Lines({ name, of }: { name: string; of: Schemas['RightsLine'][] }) {
  const { playback } = useWork()
  return (
    <div className="mt-1 grid grid-cols-[56px_1fr] gap-x-3">
      <span className="text-quiet">{name}</span>
      <ul aria-label={name}>
        {of.map((line) => (
          <li key={line.text} className={line.isDoubtful ? 'text-amber' : ''}>
            {line.text}
            {line.at !== null && (
              <button type="button" className="ml-2 min-h-6 text-copper underline" onClick={() => playback.seek(line.at ?? 0)}>
                See it
                <span className="sr-only">: {line.text}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
    </div>
  )
}
