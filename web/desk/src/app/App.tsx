import { useState } from 'react'
import { Route, Routes } from 'react-router'
import { Board } from '../board/Board'
import { BringIn } from '../bringin/BringIn'
import { ComparePage } from '../check/ComparePage'
import { FeedPage } from '../feeds/FeedPage'
import { NewFeed } from '../feeds/NewFeed'
import { Kit } from '../kit/Kit'
import { LessonPage } from '../lessons/LessonPage'
import { Lessons } from '../lessons/Lessons'
import { MadePage } from '../made/MadePage'
import { SpacePage } from '../made/SpacePage'
import { ProfilePage } from '../profiles/ProfilePage'
import { Queue } from '../queue/Queue'
import { Results } from '../results/Results'
import { TryPage } from '../trying/TryPage'
import { Keys, useKey } from './keys'
import { useLiveNews } from './live'
import { Spine } from './Spine'

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
          <Routes>
            <Route path="/" element={<Lessons />} />
            <Route path="/lessons/:id/:stage?" element={<LessonPage />} />
            <Route path="/lessons/:id/try" element={<TryPage />} />
            <Route path="/lessons/:id/made" element={<MadePage />} />
            <Route path="/board" element={<Board />} />
            <Route path="/queue" element={<Queue />} />
            <Route path="/renditions/:id/compare" element={<ComparePage />} />
            <Route path="/results" element={<Results />} />
            <Route path="/kit" element={<Kit />} />
            <Route path="/kit/profiles/:id" element={<ProfilePage />} />
            <Route path="/kit/space" element={<SpacePage />} />
            <Route path="/kit/feeds/new" element={<NewFeed />} />
            <Route path="/kit/feeds/:id" element={<FeedPage />} />
            <Route path="*" element={<p className="p-8">There is no such page. The lessons are under Lessons at the left.</p>} />
          </Routes>
        </main>
      </div>
      <Keys open={keysShown} onClose={() => showKeys(false)} />
    </BringIn>
  )
}
