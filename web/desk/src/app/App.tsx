import { lazy, Suspense, useState } from 'react'
import { Route, Routes } from 'react-router'
import { BringIn } from '../bringin/BringIn'
import { useKey } from './keys'
import { useLiveNews } from './live'
import { Spine } from './Spine'

// Each view is loaded when it is opened.
const Account = lazy(() => import('../account/Account').then((view) => ({ default: view.Account })))
const AuditPage = lazy(() => import('../audit/AuditPage').then((view) => ({ default: view.AuditPage })))
const BinPage = lazy(() => import('../lessons/BinPage').then((view) => ({ default: view.BinPage })))
const Board = lazy(() => import('../board/Board').then((view) => ({ default: view.Board })))
const ComparePage = lazy(() => import('../check/ComparePage').then((view) => ({ default: view.ComparePage })))
const FeedPage = lazy(() => import('../feeds/FeedPage').then((view) => ({ default: view.FeedPage })))
const NewOutlet = lazy(() => import('../outlets/NewOutlet').then((view) => ({ default: view.NewOutlet })))
const OutletPage = lazy(() => import('../outlets/OutletPage').then((view) => ({ default: view.OutletPage })))
const NewFeed = lazy(() => import('../feeds/NewFeed').then((view) => ({ default: view.NewFeed })))
const Kit = lazy(() => import('../kit/Kit').then((view) => ({ default: view.Kit })))
const KeyList = lazy(() => import('./KeyList').then((view) => ({ default: view.KeyList })))
const LessonPage = lazy(() => import('../lessons/LessonPage').then((view) => ({ default: view.LessonPage })))
const Lessons = lazy(() => import('../lessons/Lessons').then((view) => ({ default: view.Lessons })))
const ListsPage = lazy(() => import('../lists/ListsPage').then((view) => ({ default: view.ListsPage })))
const WordsPage = lazy(() => import('../words/WordsPage').then((view) => ({ default: view.WordsPage })))
const MadePage = lazy(() => import('../made/MadePage').then((view) => ({ default: view.MadePage })))
const SoundsPage = lazy(() => import('../sounds/SoundsPage').then((view) => ({ default: view.SoundsPage })))
const SpacePage = lazy(() => import('../made/SpacePage').then((view) => ({ default: view.SpacePage })))
const PeoplePage = lazy(() => import('../people/PeoplePage').then((view) => ({ default: view.PeoplePage })))
const Providers = lazy(() => import('../people/Providers').then((view) => ({ default: view.Providers })))
const ProfilePage = lazy(() => import('../profiles/ProfilePage').then((view) => ({ default: view.ProfilePage })))
const Queue = lazy(() => import('../queue/Queue').then((view) => ({ default: view.Queue })))
const Results = lazy(() => import('../results/Results').then((view) => ({ default: view.Results })))
const LessonOutcome = lazy(() => import('../results/LessonOutcome').then((view) => ({ default: view.LessonOutcome })))
const TryPage = lazy(() => import('../trying/TryPage').then((view) => ({ default: view.TryPage })))

export function App() {
  useLiveNews()
  const [keysShown, showKeys] = useState(false)
  useKey('?', () => showKeys(true))
  // Where letters and signs alone do nothing, this still leads to the switch.
  useKey('F1', () => showKeys(true))
  return (
    <BringIn>
      <div className="flex min-h-screen">
        <Spine />
        <main className="min-w-0 flex-1">
          <Suspense fallback={<p className="p-8 text-quiet">Fetching…</p>}>
            <Routes>
              <Route path="/" element={<Lessons />} />
              <Route path="/bin" element={<BinPage />} />
              <Route path="/lessons/:id/:stage?" element={<LessonPage />} />
              <Route path="/lessons/:id/try" element={<TryPage />} />
              <Route path="/lessons/:id/made" element={<MadePage />} />
              <Route path="/account" element={<Account />} />
              <Route path="/board" element={<Board />} />
              <Route path="/queue" element={<Queue />} />
              <Route path="/renditions/:id/compare" element={<ComparePage />} />
              <Route path="/results" element={<Results />} />
              <Route path="/results/:id" element={<LessonOutcome />} />
              <Route path="/kit" element={<Kit />} />
              <Route path="/kit/profiles/:id" element={<ProfilePage />} />
              <Route path="/kit/space" element={<SpacePage />} />
              <Route path="/kit/people" element={<PeoplePage />} />
              <Route path="/kit/lists" element={<ListsPage />} />
              <Route path="/kit/sounds" element={<SoundsPage />} />
              <Route path="/kit/words" element={<WordsPage />} />
              <Route path="/kit/sign-in" element={<Providers />} />
              <Route path="/kit/done" element={<AuditPage />} />
              <Route path="/kit/outlets/new" element={<NewOutlet />} />
              <Route path="/kit/outlets/:id" element={<OutletPage />} />
              <Route path="/kit/feeds/new" element={<NewFeed />} />
              <Route path="/kit/feeds/:id" element={<FeedPage />} />
              <Route path="*" element={<p className="p-8">There is no such page. The lessons are under Lessons at the left.</p>} />
            </Routes>
          </Suspense>
        </main>
      </div>
      {keysShown && (
        <Suspense>
          <KeyList onClose={() => showKeys(false)} />
        </Suspense>
      )}
    </BringIn>
  )
}
