import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Upload as TusUpload } from 'tus-js-client'
import { api, refusal, type Schemas, taken } from '../app/api'
import { outcome } from './outcome'

type View = Schemas['UploadView']

export interface Upload {
  key: string
  /** The server's name for it, once it has one. */
  id?: string
  name: string
  bytes: number
  sent: number
  /** Seconds that are left at the pace so far. */
  left?: number
  title: string
  /** `elsewhere`: begun before this page was opened; its file must be chosen again. `lost`: the connection is gone. */
  state: 'coming' | 'paused' | 'lost' | 'elsewhere' | 'looking' | 'done' | 'known' | 'failed' | 'stopped'
  problem?: string
  lessonId?: string
  /** The lesson that it is to become a recording of. */
  forLesson?: string
}

/** A lesson that takes what comes as one of its recordings. */
export interface Taker {
  lessonId: string
  take: (recordingHash: string) => void
}

const at = '/api/uploads'
const pieceBytes = 16 * 1024 * 1024
const tryAgainMs = 5000
const otherChecksum = 460
const sender = () => import('tus-js-client')

/** Everything that is being brought in: pieces that are checked on arrival, and go on where they stopped after anything. */
export function useUploads() {
  const client = useQueryClient()
  const navigate = useNavigate()
  const [uploads, setUploads] = useState<Upload[]>([])
  // What sends is loaded behind the first page.
  useEffect(() => void sender().catch(() => undefined), [])
  const sending = useRef(new Map<string, TusUpload>())
  const takers = useRef(new Map<string, Taker>())
  const list = useRef(uploads)
  list.current = uploads
  const gone = useRef(new AbortController())
  useEffect(() => {
    if (gone.current.signal.aborted) gone.current = new AbortController()
    return () => gone.current.abort()
  }, [])
  const set = useCallback((key: string, change: Partial<Upload>) => setUploads((all) => all.map((u) => (u.key === key ? { ...u, ...change } : u))), [])

  /** Waits for what the server finds out of a file that has come. */
  const look = useCallback(
    async (key: string, id: string) => {
      set(key, { state: 'looking', id })
      const { signal } = gone.current
      let view: View | undefined
      try {
        view = await outcome(() => taken(api.GET('/api/uploads/{id}', { params: { path: { id } }, signal })), signal)
      } catch (refused) {
        return set(key, { state: 'failed', problem: (refused as Error).message })
      }
      if (view?.problem) return set(key, { state: 'failed', problem: view.problem.sentence })
      if (!view?.lessonId) return
      const { lessonId, knownBefore } = view
      if (view.forLesson) {
        const taker = takers.current.get(key)
        takers.current.delete(key)
        set(key, { state: 'done', lessonId })
        if (taker && view.recordingHash) taker.take(view.recordingHash)
        return
      }
      await nameLesson(lessonId, view.title, list.current.find((u) => u.key === key)?.title)
      set(key, { state: knownBefore ? 'known' : 'done', lessonId })
      client.invalidateQueries({ queryKey: ['lessons'] })
      if (!knownBefore && list.current.length === 1) navigate(`/lessons/${lessonId}/bring-in`)
    },
    [client, navigate, set],
  )

  // What was begun before this page was opened.
  useEffect(() => {
    let current = true
    taken(api.GET('/api/uploads')).then(
      (views) => {
        if (!current) return
        setUploads((all) => [...all, ...views.filter((v) => !all.some((u) => u.id === v.id)).map(waiting)])
        for (const v of views) if (v.arrived === v.bytes) look(v.id, v.id)
      },
      () => undefined,
    )
    return () => {
      current = false
    }
  }, [look])

  const send = useCallback(
    async (file: File, taker?: Taker) => {
      // The same file that was begun before goes on where it stopped, in whatever browser that was.
      const begun = (await taken(api.GET('/api/uploads')).catch(() => [] as View[])).find(
        (v) =>
          v.fileName === file.name &&
          v.bytes === file.size &&
          v.changed === String(file.lastModified) &&
          (v.forLesson ?? undefined) === taker?.lessonId &&
          ![...sending.current.keys()].includes(v.id),
      )
      const key = begun?.id ?? crypto.randomUUID()
      if (taker) takers.current.set(key, taker)
      setUploads((all) => [
        ...all.filter((u) => u.key !== key),
        {
          key,
          id: begun?.id,
          name: file.name,
          bytes: file.size,
          sent: begun?.arrived ?? 0,
          forLesson: taker?.lessonId,
          title: begun?.title ?? all.find((u) => u.key === key)?.title ?? '',
          state: 'coming',
        },
      ])
      let first: { sent: number; at: number } | undefined
      const tus = await sender().catch(() => undefined)
      if (!tus)
        return set(key, { state: 'failed', problem: 'A part of Wexel could not be fetched that sends files. Reload the page and choose the file again.' })
      const upload = new tus.Upload(file, {
        endpoint: at,
        uploadUrl: begun ? `${at}/${begun.id}` : undefined,
        chunkSize: pieceBytes,
        retryDelays: [0, 500, 1000, 3000, 5000],
        storeFingerprintForResuming: false,
        removeFingerprintOnSuccess: true,
        metadata: { filename: file.name, changed: String(file.lastModified), ...(taker ? { lesson: taker.lessonId } : {}) },
        onBeforeRequest: async (request) => {
          const offset = request.getHeader('Upload-Offset')
          if (request.getMethod() !== 'PATCH' || offset === undefined || !crypto.subtle) return
          const piece = await file.slice(Number(offset), Number(offset) + pieceBytes).arrayBuffer()
          request.setHeader('Upload-Checksum', `sha256 ${base64(await crypto.subtle.digest('SHA-256', piece))}`)
        },
        onShouldRetry: (error) => {
          const status = error instanceof tus.DetailedError ? (error.originalResponse?.getStatus() ?? 0) : 0
          return status < 400 || status >= 500 || status === 409 || status === 423 || status === otherChecksum
        },
        onUploadUrlAvailable: () => set(key, { id: upload.url?.split('/').at(-1) }),
        onProgress: (sent) => {
          if (first === undefined) first = { sent, at: performance.now() }
          const seconds = (performance.now() - first.at) / 1000
          set(key, { sent, left: seconds > 1 && sent > first.sent ? ((file.size - sent) * seconds) / (sent - first.sent) : undefined })
        },
        onSuccess: () => {
          sending.current.delete(key)
          look(key, upload.url?.split('/').at(-1) ?? '')
        },
        onError: (error) => {
          const response = error instanceof tus.DetailedError ? error.originalResponse : null
          const status = response?.getStatus() ?? 0
          if (status >= 400 && status < 500 && status !== 409 && status !== 423) {
            sending.current.delete(key)
            return set(key, { state: 'failed', problem: refusal(read(response?.getBody()), status).message })
          }
          if (status === 507) {
            sending.current.delete(key)
            return set(key, { state: 'failed', problem: refusal(read(response?.getBody()), status).message })
          }
          set(key, { state: 'lost' })
          setTimeout(() => {
            if (gone.current.signal.aborted || list.current.find((u) => u.key === key)?.state !== 'lost') return
            set(key, { state: 'coming' })
            upload.start()
          }, tryAgainMs)
        },
      })
      sending.current.set(key, upload)
      upload.start()
    },
    [look, set],
  )

  const pause = (key: string) => {
    sending.current.get(key)?.abort()
    set(key, { state: 'paused' })
  }
  const goOn = (key: string) => {
    set(key, { state: 'coming' })
    sending.current.get(key)?.start()
  }
  const stop = (upload: Upload) => {
    const running = sending.current.get(upload.key)
    sending.current.delete(upload.key)
    set(upload.key, { state: 'stopped' })
    if (running) running.abort(true).catch(() => undefined)
    else if (upload.id) fetch(`${at}/${upload.id}`, { method: 'DELETE', headers: { 'Tus-Resumable': '1.0.0' } }).catch(() => undefined)
  }
  const name = (upload: Upload, title: string) => {
    set(upload.key, { title })
    if (upload.id) api.PUT('/api/uploads/{id}/title', { params: { path: { id: upload.id } }, body: { title } }).catch(() => undefined)
  }
  const close = () => setUploads([])

  return { uploads, send, pause, goOn, stop, name, close }
}

export type Uploads = ReturnType<typeof useUploads>

function waiting(view: View): Upload {
  return {
    key: view.id,
    id: view.id,
    name: view.fileName,
    bytes: view.bytes,
    sent: view.arrived,
    title: view.title ?? '',
    forLesson: view.forLesson ?? undefined,
    state: view.arrived === view.bytes ? 'looking' : 'elsewhere',
  }
}

/** A title that was typed too late for the upload belongs to the lesson. */
async function nameLesson(id: string, given: string | null, typed: string | undefined) {
  if (!typed?.trim() || typed.trim() === given) return
  const lesson = await taken(api.GET('/api/lessons/{id}', { params: { path: { id } } })).catch(() => undefined)
  if (!lesson || lesson.document.title === typed.trim()) return
  await api
    .PUT('/api/lessons/{id}/document', {
      params: { path: { id } },
      body: { basedOn: lesson.revision, document: { ...lesson.document, title: typed }, restoredFrom: null },
    })
    .catch(() => undefined)
}

function read(body: string | undefined): unknown {
  try {
    return JSON.parse(body ?? '')
  } catch {
    return undefined
  }
}

function base64(bytes: ArrayBuffer): string {
  return btoa(String.fromCharCode(...new Uint8Array(bytes)))
}
