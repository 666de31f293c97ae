import { useSearchParams } from 'react-router'

/** What became of it, where somebody comes back from a service at which they were asked to let Wexel in. */
export function CameBack() {
  const [search] = useSearchParams()
  const [refused, connected] = [search.get('refused'), search.get('connected')]
  return (
    <>
      {refused && (
        <p role="alert" className="mt-2 text-brick">
          {refused}
        </p>
      )}
      {connected && (
        <p role="status" className="mt-2 text-lagoon">
          “{connected}” is connected.
        </p>
      )}
    </>
  )
}
