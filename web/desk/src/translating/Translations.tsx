import { useState } from 'react'
import { type Schemas, sent } from '../app/api'
import { useWork } from '../lessons/work'
import { Button } from '../ui/Button'
import { ChooseFile } from '../ui/ChooseFile'
import { LanguageInput, languageName } from '../ui/LanguageInput'
import { linkLook } from '../ui/TextLink'
import { BroughtBack } from './BroughtBack'
import { TranslationTexts } from './TranslationTexts'
import { farInWords, languagesOf, translationIn, withDraftsOut, withoutTranslation } from './translations'
import { useTranslating } from './useTranslating'

/** The lesson in other languages: title, description, contents and captions, by a machine, by hand, or by a translator's file. */
export function Translations() {
  const { lessonId, document, edit } = useWork()
  const { view, draft, drafting, stop } = useTranslating()
  const [added, setAdded] = useState('es')
  const [opened, setOpened] = useState<string>()
  const [back, setBack] = useState<{ comparison: Schemas['XliffComparison']; fileName: string }>()
  const [problem, setProblem] = useState<string>()
  const languages = languagesOf(document)
  const compare = async (file: File) => {
    setProblem(undefined)
    await sent<Schemas['XliffComparison']>(`/api/lessons/${lessonId}/translations/file`, file).then(
      (comparison) => setBack({ comparison, fileName: file.name }),
      (refused: Error) => setProblem(refused.message),
    )
  }
  const knows = (language: string) => view?.into.includes(language.split('-')[0])
  const texts = view?.texts ?? []
  return (
    <section className="mt-4 border-t border-hairline pt-3" aria-label="In other languages">
      <h2>In other languages</h2>
      {languages.length === 0 && (
        <p className="mt-1 text-quiet">None yet. Learners choose a language once, and get title, description, contents and captions in it.</p>
      )}
      <ul className="mt-1">
        {languages.map((language) => {
          const translation = translationIn(document, language)
          const name = languageName(language)
          return (
            <li key={language} className="border-t border-hairline py-2 first:border-t-0">
              <b>{name}</b> <span className="text-quiet">· {farInWords(translation, texts)}</span>
              <div className="mt-1 flex flex-wrap gap-x-4 gap-y-2">
                <Button look="link" aria-label={`Write and correct ${name}`} onClick={() => setOpened(language)}>
                  Write and correct
                </Button>
                {knows(language) && drafting !== language && (
                  <Button look="link" aria-label={`Draft ${name} by ${view?.machine}`} disabled={drafting !== undefined} onClick={() => draft(language)}>
                    Draft by {view?.machine}
                  </Button>
                )}
                <a
                  href={`/api/lessons/${lessonId}/translations/${language}/file.xlf`}
                  download
                  className={linkLook}
                  aria-label={`${name} as a file for translators`}
                >
                  File for translators
                </a>
                {translation.texts.some((t) => t.draft) && (
                  <Button look="link" onClick={() => edit((d) => withDraftsOut(d, language, !translation.goesOut))}>
                    {translation.goesOut ? 'Keep its drafts from learners' : 'Release its drafts'}
                  </Button>
                )}
                {translation.texts.length > 0 && (
                  <Button look="link" aria-label={`Remove the texts in ${name}`} onClick={() => edit((d) => withoutTranslation(d, language))}>
                    Remove the texts
                  </Button>
                )}
              </div>
            </li>
          )
        })}
      </ul>
      {drafting && (
        <p role="status" className="mt-2">
          {view?.machine} translates into {languageName(drafting)}: {texts.length} texts, {view?.captions} captions…{' '}
          <Button look="link" onClick={stop}>
            Stop
          </Button>
        </p>
      )}
      <details className="mt-2 border-t border-hairline pt-2">
        <summary className="cursor-pointer">Add a language, or bring a translator’s file back</summary>
        <div className="mt-2 flex flex-col items-start gap-2">
          <LanguageInput label="Language" value={added} take={setAdded} />
          <div className="flex flex-wrap gap-x-4 gap-y-2">
            {knows(added) && (
              <Button look="link" disabled={drafting !== undefined} onClick={() => draft(added)}>
                Have {view?.machine} draft it
              </Button>
            )}
            <Button look="link" onClick={() => setOpened(added)}>
              Write it by hand
            </Button>
            <a href={`/api/lessons/${lessonId}/translations/${added}/file.xlf`} download className={linkLook}>
              Download the file for translators
            </a>
          </div>
          {view && !knows(added) && (
            <p className="text-small text-quiet">
              {view.machine
                ? `${view.machine} translates this lesson into: ${view.into.map(languageName).join(', ')}.`
                : 'Nothing on this server translates from the lesson’s language; a translator’s file (XLIFF) does.'}
            </p>
          )}
          <ChooseFile label="Choose a translator’s file" accept=".xlf,.xliff" take={compare}>
            Bring a translator’s file back
          </ChooseFile>
        </div>
      </details>
      {problem && (
        <p role="alert" className="mt-2 text-amber">
          {problem}
        </p>
      )}
      {opened && <TranslationTexts language={opened} texts={texts} onClose={() => setOpened(undefined)} />}
      {back && <BroughtBack {...back} onClose={() => setBack(undefined)} />}
    </section>
  )
}
