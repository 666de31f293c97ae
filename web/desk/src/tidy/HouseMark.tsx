import { useHouse } from '../kit/useMark'
import type { Document } from '../lessons/useLesson'
import { TextLink } from '../ui/TextLink'

interface Props {
  document: Document
  edit: (change: (d: Document) => Document) => void
}

/** Whether the house's mark stands on this lesson. */
export function HouseMark({ document, edit }: Props) {
  const house = useHouse().data
  if (!house) return null
  const inKit = <TextLink to="/kit">Kit</TextLink>
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="House mark">
      <h2>House mark</h2>
      {house.placement == null ? (
        <p className="mt-1 text-quiet">The house puts no mark on lessons. Whether it does is settled in the {inKit}.</p>
      ) : (
        <>
          <label className="mt-1 flex items-center gap-2">
            <input type="checkbox" checked={document.houseMark} onChange={(e) => edit((d) => ({ ...d, houseMark: e.target.checked }))} />
            On this lesson’s picture
          </label>
          <p className="text-quiet">Where it stands is settled in the {inKit}, for all lessons.</p>
        </>
      )}
    </section>
  )
}
