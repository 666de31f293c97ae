import type { QueryClient } from '@tanstack/react-query'
import { api, taken } from '../app/api'
import { count } from '../ui/words'

const key = 'tell-when-done'

/** Whether this computer is told when the last rendition is over. */
export function wantsToBeTold() {
  return 'Notification' in window && Notification.permission === 'granted' && localStorage.getItem(key) === 'yes'
}

export function wantToBeTold(on: boolean) {
  if (on) localStorage.setItem(key, 'yes')
  else localStorage.removeItem(key)
}

/** Shows the desktop's own notification once nothing is under way any more, where somebody wants it. */
export async function tellIfAllIsDone(client: QueryClient) {
  if (!wantsToBeTold()) return
  const list = await client.fetchQuery({ queryKey: ['queue'], queryFn: () => taken(api.GET('/api/queue')) })
  if (list.some((r) => r.state === 'waiting' || r.state === 'working')) return
  const batch = list.filter((r) => r.endedAt && Date.now() - Date.parse(r.endedAt) < 12 * 3_600_000)
  const failed = batch.filter((r) => r.state === 'failed').length
  // One that stands already is replaced: what ends together is told once.
  new Notification('The queue is done', {
    tag: 'wexel-queue',
    body: `${count(batch.filter((r) => r.state === 'done').length, 'file')} ready${failed > 0 ? `, ${failed} failed` : ''}.`,
  })
}
