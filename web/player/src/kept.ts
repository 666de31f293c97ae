const here = new Map<string, string>()

/** What a learner chose, as this browser keeps it. A page from disk, or one inside another, may have no place for it: then it holds for the page. */
export function kept(name: string): string | null {
  try {
    return localStorage.getItem(`wexel-${name}`) ?? here.get(name) ?? null
  } catch {
    return here.get(name) ?? null
  }
}

export function keep(name: string, value: string) {
  here.set(name, value)
  try {
    localStorage.setItem(`wexel-${name}`, value)
  } catch {
    // Forbidden or full: it is kept above.
  }
}
