import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { toast } from 'sonner'
import { api, type Schemas, taken } from '../app/api'
import { Estimate } from '../estimates/Estimate'
import { useLessons } from '../lessons/useLessons'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { Fields } from './Fields'
import { Findings } from './Findings'
import { SettingsSheet } from './Setting'
import { type Profile, useNotes, useProfiles } from './settings'
import { useProfile } from './useProfile'

/** One profile: all its settings, what speaks against them, and what they come to with a lesson. */
export function ProfilePage() {
  const { id } = useParams()
  const profiles = useProfiles()
  const view = profiles.data?.find((p) => p.profile.id === id)
  return (
    <Waiting query={profiles}>
      {view ? (
        <Sheet key={view.profile.id} view={view} all={profiles.data ?? []} />
      ) : (
        <p className="p-8">There is no such profile; it may have been removed. The others are in the Kit.</p>
      )}
    </Waiting>
  )
}

function Sheet({ view, all }: { view: Schemas['ProfileView']; all: Schemas['ProfileView'][] }) {
  const note = useNotes()
  const lessons = useLessons()
  const titled = lessons.data?.flatMap((c) => c.lessons) ?? []
  const [search, setSearch] = useSearchParams()
  const lessonId = search.get('lesson') ?? titled[0]?.id
  const { profile, change, check, saving, undo, redo } = useProfile(view.profile, view.shipped, lessonId)
  const findings = check.data?.findings ?? []
  const web = all.find((p) => p.profile.id === 'web')?.profile
  const { copy, remove } = useProfileActions(view.profile)
  return (
    <Page
      title={profile.title || 'Profile without a name'}
      about={
        <>
          <TextLink to="/kit">Kit</TextLink> · profile <span className="font-mono text-small">{profile.id}</span>
        </>
      }
      action={
        <span className="flex flex-wrap items-center gap-4">
          {!view.shipped && <span role="status">{said(saving)}</span>}
          {undo && (
            <Button look="link" onClick={undo}>
              Undo
            </Button>
          )}
          {redo && (
            <Button look="link" onClick={redo}>
              Redo
            </Button>
          )}
          <TextLink href={`/api/profiles/${view.profile.id}/document`} download>
            Export
          </TextLink>
          {!view.shipped && (
            <Button look="link" onClick={() => remove.mutate()}>
              Remove
            </Button>
          )}
          <Button look={view.shipped ? 'main' : 'link'} onClick={() => copy.mutate()}>
            {view.shipped ? 'Copy it to change it' : 'Copy'}
          </Button>
        </span>
      }
    >
      {view.shipped && <p className="mb-2 text-amber">This profile comes with Wexel and stays as it is. A copy can be changed.</p>}
      <div className="grid gap-x-10 gap-y-8 min-[1000px]:grid-cols-[minmax(0,1fr)_340px]">
        <div className="min-w-0">
          {web?.picture && web.sound && (
            <SettingsSheet
              value={{
                note,
                faultAt: (path) => findings.find((f) => f.isFault && (f.field === path || f.field === path.replace(/\.rule$/, '')))?.sentence,
                locked: view.shipped,
              }}
            >
              <Fields profile={profile} change={change} usual={{ picture: web.picture, sound: web.sound }} />
            </SettingsSheet>
          )}
        </div>
        <aside aria-label="What it comes to" className="flex flex-col gap-6 self-start min-[1000px]:sticky min-[1000px]:top-4">
          <section>
            <h2>With a lesson</h2>
            <select
              aria-label="Lesson"
              className="mt-1 w-full border border-quiet/60 bg-field px-2 py-1"
              value={lessonId}
              onChange={(e) => setSearch({ lesson: e.target.value }, { replace: true })}
            >
              {titled.map((l) => (
                <option key={l.id} value={l.id}>
                  {l.title || l.fileName}
                </option>
              ))}
            </select>
            <Outcome outcome={check.data?.outcome} faulty={findings.some((f) => f.isFault)} />
          </section>
          <section>
            <h2>What speaks against it</h2>
            <Waiting query={check}>
              <Findings findings={findings} take={view.shipped ? null : change} />
            </Waiting>
          </section>
          <section>
            <h2>Where it plays</h2>
            <ul>
              {(check.data?.playsOn ?? view.playsOn).map((d) => (
                <li key={d.devices} className="border-b border-hairline py-2">
                  <Mark kind={d.plays ? 'live' : 'nothing'}>
                    <span className="inline-block first-letter:uppercase">{d.devices}</span>
                    {d.plays ? '' : ': not all'}
                  </Mark>{' '}
                  <span className="block text-small text-quiet">{d.words}</span>
                </li>
              ))}
            </ul>
          </section>
          <section>
            <h2>Where it can go</h2>
            {check.data?.outlets.length === 0 && <p className="text-quiet">Every outlet takes it.</p>}
            <ul>
              {check.data?.outlets.map((o) => (
                <li key={o.outlet} className="border-b border-hairline py-2">
                  <b>{o.outlet}</b> does not take it. <span className="text-quiet">{o.sentence}</span>
                </li>
              ))}
            </ul>
          </section>
        </aside>
      </div>
    </Page>
  )
}

function Outcome({ outcome, faulty }: { outcome: Schemas['ProfileOutcome'] | null | undefined; faulty: boolean }) {
  if (!outcome)
    return (
      <p className="mt-2 text-quiet">
        {faulty ? 'Nothing can be made while something below is wrong.' : 'The lesson’s recording is still being looked through.'}
      </p>
    )
  return (
    <p className="mt-2">
      <span className="font-mono text-small">
        {outcome.size ? `${outcome.size.width} × ${outcome.size.height} · ` : ''}
        {outcome.coding}
      </span>
      <Estimate estimate={outcome.estimate} encoded={null} />
    </p>
  )
}

function said(saving: ReturnType<typeof useProfile>['saving']) {
  if (saving.state === 'refused') return <span className="text-brick">Not saved. {saving.sentence}</span>
  if (saving.state === 'unsaved') return 'Saving…'
  return saving.at ? `Saved ${saving.at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}` : ''
}

/** Copying and removing, with the way on to what is there then. */
function useProfileActions(profile: Profile) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const refresh = () => Promise.all(['profiles', 'deliver', 'outlets'].map((key) => client.invalidateQueries({ queryKey: [key] })))
  const copy = useMutation({
    mutationFn: () => taken(api.POST('/api/profiles', { body: profile })),
    onError: (problem) => toast.error(problem.message),
    onSuccess: async (added) => {
      await refresh()
      navigate(`/kit/profiles/${added.id}`)
    },
  })
  const remove = useMutation({
    mutationFn: () => taken(api.DELETE('/api/profiles/{id}', { params: { path: { id: profile.id } } })),
    onError: (problem) => toast.error(problem.message),
    onSuccess: async () => {
      await refresh()
      navigate('/kit')
      // What was removed can be brought back: nothing is lost.
      toast(`“${profile.title}” is removed`, {
        action: { label: 'Bring it back', onClick: () => taken(api.POST('/api/profiles', { body: profile })).then(refresh) },
      })
    },
  })
  return { copy, remove }
}
