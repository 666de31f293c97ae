import { useWork } from '../lessons/work'
import { DetailRows } from './DetailRows'
import { useLessonDetails } from './details'

/** What stands with the title, and in the stage where recordings are brought in. */
const elsewhere = ['title', 'description', 'language']

/** What else is said about a lesson, wherever it goes. */
export function LessonDetails() {
  const { lessonId, document, edit } = useWork()
  const details = useLessonDetails(lessonId).data
  return (
    <section className="mt-4 border-t border-hairline pt-3">
      <h2>Details</h2>
      <p className="mb-2 text-quiet">What learners, lists and searches are told, wherever the lesson goes.</p>
      <DetailRows
        codes={(field) => !elsewhere.includes(field.code)}
        own={document.details}
        inherited={details?.house ?? {}}
        from={() => 'the house'}
        change={(how) => edit((d) => ({ ...d, details: how(d.details) }))}
      />
    </section>
  )
}
