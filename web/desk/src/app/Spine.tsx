import { ChartSpline, Hourglass, LayoutGrid, ListOrdered, Wrench } from 'lucide-react'
import { NavLink } from 'react-router'
import { useQueue } from '../queue/useQueue'
import { Button } from '../ui/Button'
import { linkLook } from '../ui/TextLink'
import { signOut } from './signOut'
import { useMe } from './useMe'

/** Five places, in the order of the work. */
const places = [
  { to: '/', label: 'Lessons', icon: ListOrdered },
  { to: '/board', label: 'Board', icon: LayoutGrid },
  { to: '/queue', label: 'Queue', icon: Hourglass },
  { to: '/results', label: 'Results', icon: ChartSpline },
  { to: '/kit', label: 'Kit', icon: Wrench },
]

export function Spine() {
  const me = useMe()
  const queue = useQueue()
  const open = queue.data?.filter((r) => r.state === 'waiting' || r.state === 'working').length ?? 0
  return (
    <nav aria-label="Places" className="sticky top-0 flex h-screen w-[76px] shrink-0 flex-col border-r border-hairline pt-3">
      <span className="mb-6 text-center text-large font-bold">wexel</span>
      {places.map(({ to, label, icon: Icon }) => (
        <NavLink
          key={to}
          to={to}
          end={to === '/'}
          className={({ isActive }) => {
            const here = isActive || (to === '/' && (location.pathname.startsWith('/lessons') || location.pathname === '/bin'))
            const look = here ? 'border-ink font-bold' : 'border-transparent text-quiet hover:text-ink'
            return `relative flex flex-col items-center gap-0.5 border-l-[3px] py-2 pr-[3px] text-small ${look}`
          }}
        >
          <Icon size={18} aria-hidden="true" />
          {label}
          {to === '/queue' && open > 0 && (
            <span className="absolute right-1 top-0 rounded-full bg-ink px-1.5 text-fine font-bold leading-[18px] text-paper">
              <span className="sr-only">, </span>
              {open}
              <span className="sr-only"> under way</span>
            </span>
          )}
        </NavLink>
      ))}
      <div className="mt-auto px-1 pb-3 text-center text-small text-quiet">
        <NavLink to="/account" className={`mb-1 block break-words ${linkLook}`}>
          {me.data?.name}
        </NavLink>
        <Button look="link" onClick={signOut}>
          Sign out
        </Button>
      </div>
    </nav>
  )
}
