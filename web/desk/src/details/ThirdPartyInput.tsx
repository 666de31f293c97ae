import { useEffect, useId, useState } from 'react'
import type { Schemas } from '../app/api'
import { box, Choice } from './parts'

interface Props {
  value: Schemas['ThirdParty'] | undefined
  take: (given: Schemas['ThirdParty']) => void
}

/** Whether there is material of others in it, and by whose permission. */
export function ThirdPartyInput({ value, take }: Props) {
  const id = useId()
  const [used, setUsed] = useState(value?.used)
  const [permission, setPermission] = useState(value?.permission ?? '')
  useEffect(() => {
    setUsed(value?.used)
    setPermission(value?.permission ?? '')
  }, [value])
  const given = permission.trim()
  return (
    <fieldset>
      <legend className="text-small text-quiet">Are there pictures, music or texts of others in it?</legend>
      <div className="flex gap-4">
        <Choice
          group={`${id}-used`}
          chosen={used === false}
          choose={() => {
            setUsed(false)
            take({ used: false, permission: '' })
          }}
        >
          none
        </Choice>
        <Choice group={`${id}-used`} chosen={used === true} choose={() => setUsed(true)}>
          yes
        </Choice>
      </div>
      {used && (
        <>
          <label htmlFor={id} className="text-small text-quiet">
            What, and by whose permission; learners read it
          </label>
          <textarea
            id={id}
            rows={2}
            maxLength={4000}
            className={box}
            value={permission}
            onChange={(e) => setPermission(e.target.value)}
            onBlur={() => given && given !== value?.permission && take({ used: true, permission: given })}
          />
          {!given && <p className="text-small text-amber">Say by whose permission; until then it is not kept.</p>}
        </>
      )}
    </fieldset>
  )
}
