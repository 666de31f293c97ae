import { useQueryClient } from '@tanstack/react-query'
import { createContext, type DragEvent, type ReactNode, useContext, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { refusal, type Schemas } from '../app/api'
import { Button } from '../ui/Button'
import { size } from '../ui/words'

interface Upload {
  id: number
  name: string
  bytes: number
  sent: number
  state: 'coming' | 'looking' | 'done' | 'known' | 'failed' | 'stopped'
  problem?: string
  lessonId?: string
  stop: () => void
}

const Choose = createContext<() => void>(() => undefined)
const endings = '.mp4,.m4v,.mov,.mkv,.webm,.avi,.wmv,.asf,.ts,.m2ts'

/** Takes recordings that are dropped anywhere or chosen, and shows how far each is. */
export function BringIn({ children }: { children: ReactNode }) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const input = useRef<HTMLInputElement>(null)
  const [uploads, setUploads] = useState<Upload[]>([])
  const [over, setOver] = useState(false)
  const set = (id: number, change: Partial<Upload>) => setUploads((list) => list.map((u) => (u.id === id ? { ...u, ...change } : u)))

  const bringIn = (file: File) => {
    const id = Date.now() + Math.random()
    const request = new XMLHttpRequest()
    setUploads((list) => [...list, { id, name: file.name, bytes: file.size, sent: 0, state: 'coming', stop: () => request.abort() }])
    request.open('PUT', `/api/recordings?fileName=${encodeURIComponent(file.name)}`)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.upload.onprogress = (event) => set(id, { sent: event.loaded })
    request.upload.onload = () => set(id, { state: 'looking', sent: file.size })
    request.onabort = () => set(id, { state: 'stopped' })
    request.onerror = () => set(id, { state: 'failed', problem: 'The connection broke off. Bring it in again.' })
    request.onload = () => {
      const answer = request.responseText ? JSON.parse(request.responseText) : undefined
      if (request.status !== 200) return set(id, { state: 'failed', problem: refusal(answer, request.status).message })
      const done = answer as Schemas['BroughtIn']
      set(id, { state: done.knownBefore ? 'known' : 'done', lessonId: done.lessonId })
      client.invalidateQueries({ queryKey: ['lessons'] })
      if (!done.knownBefore) navigate(`/lessons/${done.lessonId}/bring-in`)
    }
    request.send(file)
  }
  const take = (files: FileList | null) => {
    for (const file of files ?? []) bringIn(file)
  }
  const holdsFiles = (event: DragEvent) => event.dataTransfer.types.includes('Files')

  return (
    <Choose.Provider value={() => input.current?.click()}>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: dropping is one way; the button beside it is the other */}
      <div
        onDragOver={(e) => {
          if (holdsFiles(e)) {
            e.preventDefault()
            setOver(true)
          }
        }}
        onDragLeave={(e) => {
          if (e.currentTarget === e.target) setOver(false)
        }}
        onDrop={(e) => {
          if (holdsFiles(e)) {
            e.preventDefault()
            setOver(false)
            take(e.dataTransfer.files)
          }
        }}
      >
        {children}
        {over && (
          <div className="pointer-events-none fixed inset-0 z-20 grid place-items-center border-4 border-copper bg-paper/90">
            <p className="text-[22px] font-bold">Drop to bring it in</p>
          </div>
        )}
      </div>
      <input
        ref={input}
        type="file"
        multiple
        accept={endings}
        className="hidden"
        tabIndex={-1}
        aria-label="Choose recordings"
        onChange={(e) => {
          take(e.target.files)
          e.target.value = ''
        }}
      />
      {uploads.length > 0 && (
        <section aria-label="Bringing in" className="fixed bottom-0 right-0 z-10 w-[420px] max-w-full border border-ink bg-paper p-4">
          <div className="flex justify-between">
            <h2>Bringing in</h2>
            {uploads.every((u) => u.state !== 'coming' && u.state !== 'looking') && (
              <Button look="link" onClick={() => setUploads([])}>
                Close
              </Button>
            )}
          </div>
          <ul>
            {uploads.map((u) => (
              <UploadRow key={u.id} upload={u} />
            ))}
          </ul>
        </section>
      )}
    </Choose.Provider>
  )
}

function UploadRow({ upload: u }: { upload: Upload }) {
  const percent = u.bytes === 0 ? 100 : Math.floor((u.sent / u.bytes) * 100)
  return (
    <li className="border-t border-hairline py-2">
      <p className="break-words font-bold">{u.name}</p>
      {u.state === 'coming' && (
        <div className="flex items-center gap-3">
          <span role="progressbar" aria-label={`Bringing in ${u.name}`} aria-valuenow={percent} aria-valuemin={0} aria-valuemax={100} className="h-[6px] w-[120px] bg-hairline">
            <span className="block h-full bg-ink" style={{ width: `${percent}%` }} />
          </span>
          <span>
            {percent} % of {size(u.bytes)}
          </span>
          <Button look="link" onClick={u.stop}>
            Stop
          </Button>
        </div>
      )}
      {u.state === 'looking' && <p>Finding out what it is…</p>}
      {u.state === 'done' && <p>Brought in, {size(u.bytes)}.</p>}
      {u.state === 'known' && (
        <p>
          These same bytes are here already.{' '}
          <a className="text-copper underline" href={`/lessons/${u.lessonId}/bring-in`}>
            Open the lesson
          </a>
        </p>
      )}
      {u.state === 'stopped' && <p>Stopped; nothing was kept.</p>}
      {u.state === 'failed' && (
        <p role="alert" className="text-brick">
          {u.problem}
        </p>
      )}
    </li>
  )
}

export function ChooseRecording() {
  const choose = useContext(Choose)
  return <Button onClick={choose}>Bring in a recording</Button>
}
