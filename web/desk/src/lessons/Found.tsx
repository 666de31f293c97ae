import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, type Schemas, taken } from '../app/api'
import { pictureAddress } from '../picture/picture'
import { Waiting } from '../ui/Page'
import { clock } from '../ui/words'

type Hit = Schemas['TextHit']

const kinds: Record<Hit['kind'], string> = {
  title: 'Title',
  tag: 'Tag',
  author: 'Author',
  section: 'Section',
  description: 'Description',
  caption: 'Said',
  screen: 'On screen',
}

/** Where lessons say what is looked for, each place to go to. */
export function Found({ words }: { words: string }) {
  const found = useQuery({
    queryKey: ['search', words],
    queryFn: () => taken(api.GET('/api/search', { params: { query: { words } } })),
    placeholderData: (before) => before,
  })
  return (
    <Waiting query={found}>
      <p role="status" className="sr-only">
        {found.data?.lessons.length ?? 0} lessons found
      </p>
      {found.data?.lessons.length === 0 && (
        <p>No lesson says “{words}”. All the words must stand in one lesson: in its titles, tags, sections, description or captions, or on its screen.</p>
      )}
      <ul>
        {found.data?.lessons.map((l) => (
          <li key={l.lessonId} className="flex gap-4 border-b border-hairline py-2.5">
            <img
              src={pictureAddress(l.lessonId, null, 0, true)}
              alt=""
              loading="lazy"
              className="aspect-video w-24 shrink-0 self-start border border-hairline bg-field object-contain"
            />
            <div className="min-w-0">
              <p>
                <Link to={`/lessons/${l.lessonId}/mark-up`} className="text-large hover:underline">
                  {l.title || <span className="text-amber">Needs a title</span>}
                </Link>{' '}
                <span className="text-quiet">{l.course}</span>
              </p>
              <ul>
                {l.hits.map((hit) => (
                  <li key={`${hit.kind} ${hit.at} ${hit.text}`} className="flex gap-2 py-0.5">
                    <span className="w-24 shrink-0 text-quiet">{kinds[hit.kind]}</span>
                    {hit.at != null ? (
                      <Link to={`/lessons/${l.lessonId}/mark-up?at=${hit.at}`} className="hover:underline">
                        <span className="font-mono text-small text-copper">{clock(hit.at)}</span> <Marked hit={hit} />
                      </Link>
                    ) : (
                      <span>
                        <Marked hit={hit} />
                      </span>
                    )}
                  </li>
                ))}
              </ul>
            </div>
          </li>
        ))}
      </ul>
      {found.data?.more && <p className="mt-2 text-quiet">There are more; add a word.</p>}
    </Waiting>
  )
}

function Marked({ hit }: { hit: Hit }) {
  const parts = []
  let at = 0
  for (const word of hit.found) {
    parts.push(hit.text.slice(at, word.start), <b key={word.start}>{hit.text.slice(word.start, word.start + word.length)}</b>)
    at = word.start + word.length
  }
  return (
    <>
      {parts}
      {hit.text.slice(at)}
    </>
  )
}
