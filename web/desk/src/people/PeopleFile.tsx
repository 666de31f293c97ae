import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { linkLook } from '../ui/TextLink'
import { count } from '../ui/words'

type Preview = Schemas['ListPreview']

/** Sent as it is: what it means is read by the server. */
const asFile = (file: File) => ({ body: file as unknown as string, bodySerializer: () => file, headers: { 'Content-Type': 'text/csv' } })

/** People from a list: what each line will do is said first, then it is done part by part, and can be stopped between two. */
export function PeopleFile() {
  const client = useQueryClient()
  const [file, setFile] = useState<File>()
  const [preview, setPreview] = useState<Preview>()
  const [problem, setProblem] = useState('')
  const [done, setDone] = useState<number>()
  const [invite, setInvite] = useState(true)
  const stopped = useRef(false)
  const choose = async (chosen: File | undefined) => {
    setFile(chosen)
    setPreview(undefined)
    setProblem('')
    setDone(undefined)
    if (!chosen) return
    try {
      setPreview(await taken(api.POST('/api/people/list/preview', asFile(chosen))))
    } catch (refused) {
      setProblem((refused as Error).message)
    }
  }
  const take = async () => {
    if (!file || !preview) return
    stopped.current = false
    let at = 0
    setDone(0)
    setProblem('')
    try {
      while (at < preview.total && !stopped.current) {
        at = (await taken(api.POST('/api/people/list', { params: { query: { from: at, invite } }, ...asFile(file) }))).done
        setDone(at)
      }
    } catch (refused) {
      setProblem((refused as Error).message)
    }
    client.invalidateQueries({ queryKey: ['people'] })
    client.invalidateQueries({ queryKey: ['groups'] })
  }
  const working = done !== undefined && preview !== undefined && done < preview.total && !stopped.current && problem === ''
  return (
    <div className="mt-6 border-t border-hairline pt-4">
      <h3 className="font-bold">From a list</h3>
      <p className="text-quiet">
        A CSV file whose first line says <span className="font-mono text-small">name, mail, role, groups</span>; up to 20,000 lines. Nothing is done before you
        have seen what each line will do.
      </p>
      <p className="mt-2">
        <label className={`${linkLook} cursor-pointer focus-within:outline-3`}>
          {file ? 'Choose another list' : 'Choose a list of people'}
          <input type="file" className="sr-only" accept=".csv,.txt,.tsv,text/csv" onChange={(e) => choose(e.target.files?.[0])} />
        </label>
        {file && <span className="ml-3 text-quiet">{file.name}</span>}
      </p>
      {problem && (
        <p role="alert" className="mt-2 text-brick">
          {problem}
        </p>
      )}
      {preview && (
        <div className="mt-3">
          <p>
            <b>
              {[
                preview.adds > 0 && `${preview.adds.toLocaleString('en')} added`,
                preview.changes > 0 && `${preview.changes.toLocaleString('en')} changed`,
                preview.nothing > 0 && `${preview.nothing.toLocaleString('en')} as they are`,
                left(preview) > 0 && `${left(preview).toLocaleString('en')} left out`,
              ]
                .filter(Boolean)
                .join(' · ')}
            </b>
            {preview.newGroups.length > 0 && ` · new ${preview.newGroups.length === 1 ? 'group' : 'groups'}: ${preview.newGroups.join(', ')}`}
          </p>
          <ol className="mt-2 max-h-72 overflow-y-auto border-y border-hairline" aria-label="What each line will do">
            {preview.lines.map((line) => (
              <li key={line.number} className="grid grid-cols-[52px_1fr] gap-2 border-b border-hairline py-1 text-small last:border-0">
                <span className="font-mono text-quiet">{line.number}</span>
                <span className={line.effect === 'refused' ? 'text-brick' : line.effect === 'repeats' ? 'text-amber' : ''}>
                  <span className="break-all font-mono">{line.mail}</span> {line.words}
                </span>
              </li>
            ))}
          </ol>
          {preview.lines.length < preview.total && (
            <p className="text-small text-quiet">
              {count(preview.total - preview.lines.length, 'more line')} like these. All that are left out stand here
              {left(preview) > 200 ? ', but for those beyond 200' : ''}.
            </p>
          )}
          <label className="mt-2 flex items-baseline gap-2">
            <input type="checkbox" className="accent-copper" checked={invite} onChange={(e) => setInvite(e.target.checked)} />
            Send those who are added a mail that lets them choose a password
          </label>
          {done !== undefined && (
            <p role="status" className="mt-2">
              {done >= preview.total
                ? `Done: ${count(preview.total, 'line')}.`
                : `${done.toLocaleString('en')} of ${count(preview.total, 'line')} done${working ? '' : '. Taking the list again goes on there'}.`}
              {working && <progress className="ml-3 w-40 accent-copper" value={done} max={preview.total} aria-label="Lines that are done" />}
            </p>
          )}
          <p className="mt-2 flex gap-4">
            {working ? (
              <Button
                look="link"
                onClick={() => {
                  stopped.current = true
                }}
              >
                Stop
              </Button>
            ) : preview.adds + preview.changes > 0 && (done ?? 0) < preview.total ? (
              <Button onClick={take}>
                {[preview.adds > 0 && `Add ${preview.adds.toLocaleString('en')}`, preview.changes > 0 && `change ${preview.changes.toLocaleString('en')}`]
                  .filter(Boolean)
                  .join(' and ')
                  .replace(/^c/, 'C')}
              </Button>
            ) : (
              done === undefined && <span className="text-quiet">There is nothing in it to do.</span>
            )}
          </p>
        </div>
      )}
    </div>
  )
}

const left = (preview: Preview) => preview.total - preview.adds - preview.changes - preview.nothing
