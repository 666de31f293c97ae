import { HouseDetails } from '../details/HouseDetails'
import { settingsOf } from '../outlets/kinds'
import { useOutlets } from '../outlets/useOutlets'
import { ProfileList } from '../profiles/ProfileList'
import { Page, Waiting } from '../ui/Page'
import { TextLink } from '../ui/TextLink'
import { House } from './House'
import { OutletLimits } from './OutletLimits'
import { OutletProfile } from './OutletProfile'

/** What lessons are made with and where they go. */
export function Kit() {
  const outlets = useOutlets()
  return (
    <Page title="Kit" about="Profiles, outlets and the house’s mark, for every lesson.">
      <div className="grid gap-x-12 gap-y-10 xl:grid-cols-[minmax(0,1fr)_minmax(0,480px)]">
        <div>
          <ProfileList />
          <h2>Outlets</h2>
          <Waiting query={outlets}>
            <ul className="border-t border-hairline">
              {outlets.data?.map((o) => (
                <li key={o.id} className="border-b border-hairline py-2">
                  <b>{o.name}</b> <span className="text-quiet">{o.kindName}</span>
                  <TextLink className="ml-4" to={settingsOf(o).to} aria-label={`${settingsOf(o).words}: ${o.name}`}>
                    {settingsOf(o).words}
                  </TextLink>
                  <OutletProfile outlet={o} />
                  <OutletLimits outlet={o} key={JSON.stringify(o.limits)} />
                </li>
              ))}
            </ul>
            <p className="mt-3">
              <TextLink to="/kit/outlets/new">Add an outlet</TextLink>
            </p>
          </Waiting>
          <p className="border-t border-hairline py-2">
            <TextLink to="/kit/lists">Lists of lessons across courses, and who may see them</TextLink>
          </p>
          <p className="border-t border-hairline py-2">
            <TextLink to="/kit/words">Word list: how names and acronyms are written in captions</TextLink>
          </p>
          <p className="border-t border-hairline py-2">
            <TextLink to="/kit/sounds">Sounds: music and effects to lay under lessons, with their licences</TextLink>
          </p>
          <h2 className="mt-10">People</h2>
          <p className="border-t border-hairline py-2">
            <TextLink to="/kit/people">Who can sign in, and the groups in which they are named</TextLink>
          </p>
          <p className="border-t border-hairline py-2">
            <TextLink to="/kit/sign-in">By which of the organisation’s providers people sign in</TextLink>
          </p>
          <h2 className="mt-6">Space</h2>
          <p className="border-t border-hairline py-2">
            <TextLink to="/kit/space">What the library takes, and what could be freed</TextLink>
          </p>
          <h2 className="mt-6">What was done</h2>
          <p className="border-t border-hairline py-2">
            <TextLink to="/kit/done">Who changed what, when, and from where</TextLink>
          </p>
        </div>
        <div>
          <House />
          <div className="mt-10">
            <HouseDetails />
          </div>
        </div>
      </div>
    </Page>
  )
}
