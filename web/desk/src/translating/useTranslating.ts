import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { useWork } from '../lessons/work'
import { withTranslated } from './translations'

/** What there is to translate, and a machine that drafts it. */
export function useTranslating() {
  const { lessonId, revision, edit } = useWork()
  const [drafting, setDrafting] = useState<string>()
  const stopper = useRef<AbortController>(undefined)
  const params = { path: { id: lessonId } }
  const { data: view } = useQuery({
    queryKey: ['translations', lessonId, revision],
    queryFn: () => taken(api.GET('/api/lessons/{id}/translations', { params })),
    placeholderData: (before) => before,
  })
  const draft = async (language: string) => {
    stopper.current = new AbortController()
    const { signal } = stopper.current
    setDrafting(language)
    try {
      const made = await taken(api.POST('/api/lessons/{id}/translations/{language}/draft', { params: { path: { id: lessonId, language } }, signal }))
      edit((d) => withTranslated(d, made))
    } catch (refused) {
      if (!signal.aborted) toast.error((refused as Error).message)
    } finally {
      setDrafting(undefined)
    }
  }
  return { view, draft, drafting, stop: () => stopper.current?.abort() }
}
