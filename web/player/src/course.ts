import { judge, type Range } from './completion'

/** On a course's page: what this browser has seen of each lesson. */
export function showCourse(course: Element) {
  for (const item of course.querySelectorAll<HTMLElement>('[data-lesson]')) {
    const seen = item.querySelector('.seen')
    if (!seen) continue
    const { share, complete } = judge(watchedOf(item.dataset.lesson ?? ''), Number(item.dataset.length), Number(item.dataset.complete))
    item.classList.toggle('complete', complete)
    seen.textContent = complete ? 'completed' : share > 0 ? `${Math.max(1, Math.floor(share * 100))} % seen` : ''
  }
}

function watchedOf(key: string): Range[] {
  try {
    return JSON.parse(localStorage.getItem(`wexel:${key}`) ?? '{}').watched ?? []
  } catch {
    // Storage may be forbidden, or hold what another version wrote: then nothing is known.
    return []
  }
}
