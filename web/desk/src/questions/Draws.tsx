import { useWork } from '../lessons/work'
import { Take } from './Pool'
import { drawn } from './questions'

/** Of the questions with a tag, how many each learner is asked. */
export function Draws() {
  const { document, edit } = useWork()
  const { questions, draws } = document
  const tags = [...new Set(questions.flatMap((q) => q.tags ?? []))].sort()
  const several = tags.map((tag) => ({ tag, of: questions.filter((q) => q.tags?.includes(tag)).length })).filter(({ of }) => of > 1)
  if (several.length === 0) return null
  const set = (tag: string, take: number) => edit((d) => drawn(d, tag, take))
  return (
    <ul className="mt-2" aria-label="Drawn by tag">
      {several.map(({ tag, of }) => (
        <li key={tag} className="flex flex-wrap items-baseline gap-x-2 py-0.5">
          Of “{tag}” <Take of={of} take={(draws ?? []).find((draw) => draw.tag === tag)?.take ?? 0} set={(take) => set(tag, take)} />
        </li>
      ))}
    </ul>
  )
}
