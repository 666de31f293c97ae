import { useState } from 'react'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { languageName } from '../ui/LanguageInput'
import { count } from '../ui/words'
import { changeWords, type Difference, takenAtFirst, withTranslated } from './translations'

interface Props {
  comparison: Schemas['XliffComparison']
  fileName: string
  onClose: () => void
}

/** What a translator's file would change, text by text, and what changed here since it was sent: nothing is taken unseen. */
export function BroughtBack({ comparison: { language, differences }, fileName, onClose }: Props) {
  const { lessonId, edit } = useWork()
  const [chosen, setChosen] = useState(() => new Set(takenAtFirst(differences)))
  const [taking, setTaking] = useState(false)
  const same = differences.filter((d) => d.change === 'same').length
  const lacks = ({ change }: Difference) => change === 'untranslated' || change === 'missing'
  const lacking = differences.filter(lacks)
  const shown = differences.filter((d) => d.change !== 'same' && !lacks(d))
  const toggle = (id: string) => setChosen((was) => (was.has(id) ? new Set([...was].filter((w) => w !== id)) : new Set([...was, id])))
  const take = async () => {
    setTaking(true)
    const texts = differences.filter((d) => d.canBeTaken && chosen.has(d.id)).map((d) => ({ id: d.id, text: d.target ?? '' }))
    try {
      const made = await taken(
        api.POST('/api/lessons/{id}/translations/{language}', { params: { path: { id: lessonId, language } }, body: { texts, fileName } }),
      )
      edit((d) => withTranslated(d, made))
      onClose()
    } catch (refused) {
      toast.error((refused as Error).message)
    } finally {
      setTaking(false)
    }
  }
  return (
    <Dialog open onClose={onClose} title={`${languageName(language)}, from ${fileName}`}>
      <p className="text-quiet">
        {same > 0 && `${count(same, 'text')} as here already. `}
        {shown.length === 0 ? 'Nothing else in the file can be taken.' : 'What is ticked is taken; all else stays as it is.'}
      </p>
      <ul className="mt-2">
        {shown.map((d, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a text may stand in a file twice, and the list does not change.
          <Row key={i} difference={d} language={language} chosen={chosen.has(d.id)} toggle={() => toggle(d.id)} />
        ))}
      </ul>
      {lacking.length > 0 && (
        <details className="mt-2 border-t border-hairline pt-2">
          <summary className="cursor-pointer">{count(lacking.length, 'text')} without a translation in the file</summary>
          <ul>
            {lacking.map((d) => (
              <Row key={d.id} difference={d} language={language} />
            ))}
          </ul>
        </details>
      )}
      <div className="sticky -bottom-6 -mb-6 mt-3 bg-paper pb-6 pt-2">
        <Button onClick={take} disabled={taking || chosen.size === 0}>
          Take {count(chosen.size, 'text')}
        </Button>
      </div>
    </Dialog>
  )
}

interface RowProps {
  difference: Difference
  language: string
  chosen?: boolean
  toggle?: () => void
}

/** One text: what became of it, and what it says here and there. */
function Row({ difference: d, language, chosen, toggle }: RowProps) {
  return (
    <li className="border-t border-hairline py-2 first:border-t-0">
      {d.canBeTaken ? (
        <label className="flex gap-2">
          <input type="checkbox" checked={chosen} onChange={toggle} />
          <span>
            {d.name} <span className={d.change === 'new' ? 'text-quiet' : 'text-amber'}>· {changeWords[d.change]}</span>
          </span>
        </label>
      ) : (
        <p>
          {d.name} <span className="text-amber">· {changeWords[d.change]}</span>
        </p>
      )}
      <dl className="grid grid-cols-[6rem_1fr] gap-x-3 pl-6 text-small">
        <dt className="text-quiet">Original</dt>
        <dd>{d.source}</dd>
        {d.sourceThen && (
          <>
            <dt className="text-quiet">when sent</dt>
            <dd>{d.sourceThen}</dd>
          </>
        )}
        {d.here && (
          <>
            <dt className="text-quiet">here now</dt>
            <dd lang={language}>{d.here}</dd>
          </>
        )}
        {d.target && (
          <>
            <dt className="text-quiet">in the file</dt>
            <dd lang={language}>{d.target}</dd>
          </>
        )}
      </dl>
    </li>
  )
}
