import { LanguageInput } from '../ui/LanguageInput'
import type { Document } from './useLesson'

interface Props {
  document: Document
  edit: (change: (d: Document) => Document) => void
}

/** The language that is spoken in the lesson and that its texts are in. Captions that are in it go along. */
export function LanguageField({ document, edit }: Props) {
  const take = (tag: string) =>
    edit((d) => ({ ...d, language: tag, captions: d.captions.map((t) => (t.language === d.language ? { ...t, language: tag } : t)) }))
  return (
    <div className="mt-4">
      <LanguageInput label="Language, with its region" value={document.language} take={take} />
    </div>
  )
}
