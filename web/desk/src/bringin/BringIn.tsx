import { createContext, type DragEvent, type ReactNode, useContext, useRef, useState } from 'react'
import { Button } from '../ui/Button'
import { UploadRow } from './UploadRow'
import { type Taker, useUploads } from './useUploads'

const Choose = createContext<() => void>(() => undefined)
const Send = createContext<(file: File, taker: Taker) => void>(() => undefined)

/** Brings a file in as a recording of a lesson. */
export const useSendForLesson = () => useContext(Send)
export const endings = '.mp4,.m4v,.mov,.mkv,.webm,.avi,.wmv,.asf,.ts,.m2ts'

/** Takes recordings that are dropped anywhere or chosen, and shows how far each is. */
export function BringIn({ children }: { children: ReactNode }) {
  const input = useRef<HTMLInputElement>(null)
  const uploads = useUploads()
  const [over, setOver] = useState(false)
  const take = (files: FileList | null) => {
    for (const file of files ?? []) uploads.send(file)
  }
  const holdsFiles = (event: DragEvent) => event.dataTransfer.types.includes('Files')

  return (
    <Choose.Provider value={() => input.current?.click()}>
      <Send.Provider value={uploads.send}>
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
              <p className="text-title font-bold">Drop to bring it in</p>
            </div>
          )}
        </div>
        <input
          ref={input}
          type="file"
          multiple
          accept={`${endings},.zip,.json`}
          className="hidden"
          tabIndex={-1}
          aria-label="Choose recordings"
          onChange={(e) => {
            take(e.target.files)
            e.target.value = ''
          }}
        />
        {uploads.uploads.length > 0 && (
          <section
            aria-label="Bringing in"
            className="fixed bottom-0 left-[76px] z-10 max-h-[45vh] w-[420px] max-w-[calc(100vw-76px)] overflow-y-auto border border-ink bg-paper p-4"
          >
            <div className="flex justify-between">
              <h2>Bringing in</h2>
              {uploads.uploads.every((u) => u.state !== 'coming' && u.state !== 'looking' && u.state !== 'lost') && (
                <Button look="link" onClick={uploads.close}>
                  Close
                </Button>
              )}
            </div>
            <ul>
              {uploads.uploads.map((u) => (
                <UploadRow key={u.key} upload={u} uploads={uploads} choose={() => input.current?.click()} />
              ))}
            </ul>
          </section>
        )}
      </Send.Provider>
    </Choose.Provider>
  )
}

export function ChooseRecording() {
  const choose = useContext(Choose)
  return <Button onClick={choose}>Bring in a recording</Button>
}
