import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { languageName } from '../ui/LanguageInput'
import { type TextToTranslate, translationIn, withText, withTranslation } from './translations'

interface Props {
  language: string
  texts: readonly TextToTranslate[]
  onClose: () => void
}

const fieldLook = 'mt-1 w-full border border-quiet/60 bg-field px-2 py-1.5'

/** Title, description and contents beside their translations; the captions of the language stand in the sheet. */
export function TranslationTexts({ language, texts, onClose }: Props) {
  const { document, edit } = useWork()
  const translation = translationIn(document, language)
  const drafts = translation.texts.filter((t) => t.draft).length
  return (
    <Dialog open onClose={onClose} title={`In ${languageName(language)}`}>
      <ul>
        {texts.map((text) => {
          const there = translation.texts.find((t) => t.of === text.id)
          const common = {
            key: there?.text,
            id: `translation-${text.id}`,
            lang: language,
            dir: 'auto' as const,
            maxLength: text.most,
            defaultValue: there?.text,
            className: fieldLook,
            onBlur: (e: { target: { value: string } }) =>
              e.target.value !== (there?.text ?? '') &&
              edit((d) => withTranslation(d, withText(translationIn(d, language), text.id, text.source, e.target.value))),
          }
          const { key, ...rest } = common
          return (
            <li key={text.id} className="border-t border-hairline py-2 first:border-t-0">
              <label htmlFor={rest.id}>
                <span className="text-small text-quiet">{text.name}</span>
                <br />
                {text.source}
              </label>
              {text.lines ? <textarea key={key} rows={4} {...rest} /> : <input key={key} {...rest} />}
              {there?.draft && <p className="text-small text-amber">By a machine.</p>}
              {there && there.source !== text.source && <p className="text-small text-amber">Translated when the original said “{there.source}”.</p>}
            </li>
          )
        })}
      </ul>
      {texts.length === 0 && <p className="text-quiet">The lesson has no title, description or contents yet.</p>}
      {drafts > 0 && (
        <Button
          className="mt-3"
          onClick={() => edit((d) => withTranslation(d, { ...translation, texts: translation.texts.map((t) => ({ ...t, draft: false })) }))}
        >
          All {drafts} by the machine are right
        </Button>
      )}
    </Dialog>
  )
}
