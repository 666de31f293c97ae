import { judge, type Range } from './completion'

/** On a course's page: what this browser has seen of each lesson. */
export function showCourse(course: Element) {
  for (const item of course.querySelectorAll<HTMLElement>('[data-lesson]')) {
    const seen = item.querySelector('.seen')
    if (!seen) continue
    const kept = keptOf(item.dataset.lesson ?? '')
    const judged = judge(kept.watched ?? [], Number(item.dataset.length), Number(item.dataset.complete))
    // Some lessons ask for more than watching: their own page says whether they are done.
    const [share, complete] = [judged.share, kept.complete ?? judged.complete]
    item.classList.toggle('complete', complete)
    seen.textContent = complete ? 'completed' : share > 0 ? `${Math.max(1, Math.floor(share * 100))} % seen` : ''
  }
}

function keptOf(key: string): { watched?: Range[]; complete?: boolean } {
  try {
    return JSON.parse(localStorage.getItem(`wexel:${key}`) ?? '{}')
  } catch {
    // Storage may be forbidden, or hold what another version wrote: then nothing is known.
    return {}
  }
}
