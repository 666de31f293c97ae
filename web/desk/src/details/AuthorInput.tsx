import { useEffect, useId, useState } from 'react'
import type { Schemas } from '../app/api'
import { box } from './parts'

interface Props {
  value: Schemas['Author'] | undefined
  take: (author: Schemas['Author'] | undefined) => void
}

/** Whether a text is how somebody is reached: a mail address or a whole web address. */
export const isContact = (text: string) => /^[^\s@]+@[^\s@]+$/.test(text) || /^https?:\/\/\S+$/i.test(text)

/** Who made it, and how that person is reached. */
export function AuthorInput({ value, take }: Props) {
  const id = useId()
  const [name, setName] = useState(value?.name ?? '')
  const [contact, setContact] = useState(value?.contact ?? '')
  useEffect(() => {
    setName(value?.name ?? '')
    setContact(value?.contact ?? '')
  }, [value])
  const [said, reached] = [name.trim(), contact.trim()]
  const problem =
    reached && !isContact(reached)
      ? 'Write a mail address or a whole web address, such as training@harbour.example.'
      : reached && !said
        ? 'Write the name of who is reached there.'
        : undefined
  const leave = () => {
    if (problem || (said === (value?.name ?? '') && reached === (value?.contact ?? ''))) return
    take(said ? { name: said, contact: reached || null } : undefined)
  }
  return (
    <fieldset className="flex flex-col gap-1" onBlur={leave}>
      <input aria-label="Author" placeholder="Name" value={name} maxLength={500} onChange={(e) => setName(e.target.value)} className={box} />
      <input
        aria-label="How the author is reached"
        placeholder="Mail or web address"
        value={contact}
        maxLength={500}
        aria-invalid={Boolean(problem)}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(e) => setContact(e.target.value)}
        className={box}
      />
      {problem && (
        <p id={`${id}-problem`} className="text-small text-brick">
          {problem}
        </p>
      )}
    </fieldset>
  )
}
