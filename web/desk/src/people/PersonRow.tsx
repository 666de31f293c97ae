import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toast } from 'sonner'
import { api, taken } from '../app/api'
import { Button } from '../ui/Button'
import { TextLink } from '../ui/TextLink'
import { type Role, roles } from './roles'
import type { Person } from './usePeople'

/** Somebody, and what an administrator can do about them. */
export function PersonRow({ person, mayChange }: { person: Person; mayChange: boolean }) {
  const client = useQueryClient()
  const [name, setName] = useState<string>()
  const [asks, setAsks] = useState(false)
  const [open, setOpen] = useState(false)
  const params = { path: { id: person.id } }
  const settled = {
    onError: (problem: Error) => toast.error(problem.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['people'] }),
  }
  const change = useMutation({
    mutationFn: (body: { name: string; role: Role }) => taken(api.PUT('/api/people/{id}', { params, body })),
    ...settled,
  })
  const disable = useMutation({
    mutationFn: () => taken(person.isDisabled ? api.DELETE('/api/people/{id}/disabled', { params }) : api.PUT('/api/people/{id}/disabled', { params })),
    ...settled,
  })
  const forget = useMutation({
    mutationFn: () => taken(api.DELETE('/api/people/{id}/data', { params })),
    ...settled,
  })
  const invite = useMutation({
    mutationFn: () => taken(api.POST('/api/people/{id}/invitation', { params })),
    onSuccess: () => toast.success(`A link for a new password is on its way to ${person.mail}.`),
    onError: settled.onError,
  })
  const says = person.isGuest ? 'guest, by a code' : roles.find((r) => r.role === person.role)?.word
  return (
    <tr className="border-b border-hairline align-top">
      <td className="py-1.5 pr-3">
        {name === undefined ? (
          <b className={person.isDisabled ? 'text-quiet' : ''}>
            {person.name}
            {person.isMe && <span className="font-normal text-quiet"> · you</span>}
          </b>
        ) : (
          <form
            className="flex gap-2"
            onSubmit={(e) => {
              e.preventDefault()
              change.mutate({ name, role: person.role })
              setName(undefined)
            }}
          >
            <input
              // biome-ignore lint/a11y/noAutofocus: whoever presses Rename goes on to type it
              autoFocus
              aria-label={`Name of ${person.mail}`}
              className="w-44 border border-quiet/60 bg-field px-1"
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
            <Button look="link" type="submit">
              Save
            </Button>
          </form>
        )}
        <span className="block break-words text-small text-quiet">{person.mail}</span>
        {person.mailRefused && <span className="block text-small text-amber">The mail server would not take mail to this address: {person.mailRefused}</span>}
      </td>
      <td className="py-1.5 pr-3 whitespace-nowrap">
        {mayChange && !person.isGuest && !person.isDisabled ? (
          <select
            aria-label={`What ${person.name} does`}
            className="border border-quiet/60 bg-field px-1 py-0.5"
            value={person.role}
            onChange={(e) => change.mutate({ name: person.name, role: e.target.value as Role })}
          >
            {roles.map((r) => (
              <option key={r.role} value={r.role}>
                {r.word}
              </option>
            ))}
          </select>
        ) : (
          <span className="text-quiet">{person.isDisabled ? `${says}, can sign in no more` : says}</span>
        )}
      </td>
      <td className="py-1.5 pr-3 text-quiet">{person.groups.join(', ')}</td>
      <td className="py-1.5 text-right text-small">
        {mayChange && !open && (
          <Button look="link" aria-label={`Change ${person.name}`} onClick={() => setOpen(true)}>
            Change
          </Button>
        )}
        {mayChange && open && (
          <span className="inline-flex flex-wrap justify-end gap-x-4">
            {asks ? (
              <>
                <Button
                  look="link"
                  onClick={() => {
                    disable.mutate()
                    setAsks(false)
                  }}
                >
                  Sign out everywhere, for good
                </Button>
                <Button look="link" onClick={() => setAsks(false)}>
                  Leave it
                </Button>
              </>
            ) : (
              <>
                {!person.isGuest && !person.isDisabled && (
                  <>
                    <Button look="link" onClick={() => setName(name === undefined ? person.name : undefined)}>
                      {name === undefined ? 'Rename' : 'Leave it'}
                    </Button>
                    <Button look="link" onClick={() => invite.mutate()} disabled={invite.isPending}>
                      Send a link for a password
                    </Button>
                  </>
                )}
                <TextLink href={`/api/people/${person.id}/data`} download>
                  What is known of them
                </TextLink>
                {person.isDisabled && (
                  <Button
                    look="link"
                    onClick={() =>
                      window.confirm(
                        `Remove all that is known of ${person.name}, for good? What they watched stays in the counts, as nobody’s. Their lessons become yours.`,
                      ) && forget.mutate()
                    }
                  >
                    Remove for good
                  </Button>
                )}
                <Button look="link" onClick={() => (person.isDisabled ? disable.mutate() : setAsks(true))}>
                  {person.isDisabled ? 'Let in again' : 'Let in no more'}
                </Button>
                <Button look="link" onClick={() => setOpen(false)}>
                  Close
                </Button>
              </>
            )}
          </span>
        )}
      </td>
    </tr>
  )
}
