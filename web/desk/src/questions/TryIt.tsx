import '../../../player/src/over.css'
import '../../../player/src/questions/questions.css'
import { useEffect, useRef, useState } from 'react'
import type { Question as Asked } from '../../../player/src/lesson'
import { box } from '../../../player/src/questions/box'
import { afterTries, judge } from '../../../player/src/questions/judge'
import { Still } from '../sheet/Still'
import { Button } from '../ui/Button'
import type { Look } from './useLooks'

/** A question as learners see it: the player's own box, over the picture where it is asked. Nothing of it is kept. */
export function TryIt({ look, at, close }: { look: Look; at: number; close: () => void }) {
  const place = useRef<HTMLDivElement>(null)
  const [again, setAgain] = useState(0)
  // biome-ignore lint/correctness/useExhaustiveDependencies: trying it again begins anew
  useEffect(() => {
    const { key, ...written } = look.asked as Asked
    // Learners get it from beside their page.
    const asked = { ...written, picture: written.picture?.replace(/^pictures/, '/api/pictures/shown') }
    if (!place.current || !key) return
    let tries = 0
    let share = 0
    const made = box({ ...asked, key }, 'As learners see it', undefined, {
      async answer(values) {
        const grade = judge(key.judge, values)
        tries++
        share = Math.max(share, afterTries(grade.share, key.penalty, tries))
        const known = { question: asked.id, tries, share, right: grade.right, answer: values }
        const own = grade.right ? key.right : key.wrong
        const left = asked.tries === 0 || tries < asked.tries
        return {
          later: false,
          right: grade.right,
          share: grade.share,
          says: [...grade.replies, ...(own ? [own] : [])],
          solution: grade.right || left ? null : key.answer,
          known,
        }
      },
      goOn: close,
      again: close,
    })
    place.current.replaceChildren(...(made.over ? [made.over] : []), made.element)
    if (made.over) made.over.style.inset = '0'
  }, [look, again])
  const onPicture = look.asked.form.kind === 'place'
  return (
    <div className="mt-2 border-t border-hairline pt-2">
      <div className="relative bg-[#1d2129] p-3" data-testid="trying">
        {onPicture && <Still at={at} className="mb-3 w-full" />}
        <div ref={place} className={onPicture ? 'on-picture' : ''} />
      </div>
      <p className="mt-1 flex gap-5 [&>button]:min-h-6">
        <Button look="link" onClick={() => setAgain(again + 1)}>
          Begin again
        </Button>
        <Button look="link" onClick={close}>
          Close
        </Button>
      </p>
    </div>
  )
}
