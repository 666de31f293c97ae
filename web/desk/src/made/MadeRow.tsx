import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { TextLink } from '../ui/TextLink'
import { count, day, size } from '../ui/words'
import { DeleteFile } from './DeleteFile'

type File = Schemas['MadeFileView']

const ages: Record<Schemas['FileAge'], [kind: 'live' | 'behind', words: string]> = {
  upToDate: ['live', 'up to date'],
  finishing: ['behind', 'behind: title, contents or captions; nothing need be encoded'],
  encoding: ['behind', 'behind: picture or sound would be encoded anew'],
}

/** One file that was made. */
export function MadeRow({ lessonId, file }: { lessonId: string; file: File }) {
  const client = useQueryClient()
  const [deleting, ask] = useState(false)
  const path = { id: lessonId, key: file.key }
  const keep = useMutation({
    mutationFn: (kept: boolean) => taken(api.PUT('/api/lessons/{id}/files/{key}/kept', { params: { path }, body: { kept } })),
    onError: (problem) => toast.error(problem.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['deliver', lessonId] }),
  })
  const [age, words] = ages[file.age]
  return (
    <tr className="border-b border-hairline align-top" data-testid="made-file">
      <td className="py-2 pr-6">
        <b>{file.title}</b>
        {file.linkThis && <span className="ml-3 text-lagoon">Hand on this one</span>}
        {file.link && (
          <TextLink className="ml-3" href={file.link} out>
            Open its page
          </TextLink>
        )}
        <span className="block text-quiet">{file.purpose}</span>
        <span className="block font-mono text-small break-all">{file.name}</span>
        <span className="block font-mono text-small break-all text-quiet">SHA-256 {file.sha256}</span>
      </td>
      <td className="py-2 pr-6">
        <span className="whitespace-nowrap">{day(file.madeAt)}</span> <span className="whitespace-nowrap text-quiet">· revision {file.revision}</span>
        <span className="block max-w-[240px]">
          <Mark kind={age}>{words}</Mark>
        </span>
      </td>
      <td className="py-2 text-right font-mono text-small whitespace-nowrap">
        {size(file.bytes)}
        {file.pieces > 1 && <span className="block text-quiet">{count(file.pieces, 'piece')}</span>}
      </td>
      <td className="py-2 pl-6">
        <span className="flex flex-col items-start gap-2">
          <TextLink href={`/api/lessons/${lessonId}/files/${file.key}`} download aria-label={`Download ${file.name}`}>
            Download
          </TextLink>
          {file.kept ? (
            <>
              <span className="text-quiet">Kept</span>
              <Button look="link" onClick={() => keep.mutate(false)}>
                Need not be kept
              </Button>
            </>
          ) : (
            <>
              {file.renditionId && (
                <Button look="link" onClick={() => keep.mutate(true)}>
                  Keep it
                </Button>
              )}
              <Button look="link" onClick={() => ask(true)}>
                Delete…
              </Button>
            </>
          )}
        </span>
        <DeleteFile open={deleting} close={() => ask(false)} lessonId={lessonId} file={file} />
      </td>
    </tr>
  )
}
