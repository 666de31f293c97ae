import type { Schemas } from '../app/api'
import { useLessons } from '../lessons/useLessons'
import { Button } from '../ui/Button'
import { isGeneral } from './kinds'

interface Props {
  kind: Schemas['OutletKindView']
  name: string
  take: (name: string) => void
}

/** What comes of a name that says nothing of what is there, and better ones: one a subject, as the courses have them. */
export function GeneralName({ kind, name, take }: Props) {
  return isGeneral(kind, name) ? <Advice kind={kind} name={name} take={take} /> : null
}

function Advice({ kind, name, take }: Props) {
  const courses = useLessons().data ?? []
  return (
    <div className="-mt-2 border-l-2 border-amber pl-3 text-amber">
      <p>
        “{name.trim()}” is a name for everything. Such a {kind.name} ends with hundreds of lessons, and nothing is found in it. Make one for each subject, and
        name it after that.
      </p>
      {courses.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-x-4">
          {courses.slice(0, 4).map((c) => (
            <Button key={c.id} look="link" className="min-h-6" onClick={() => take(c.title)}>
              {c.title}
            </Button>
          ))}
        </p>
      )}
    </div>
  )
}
