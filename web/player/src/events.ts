/** What is told on a page, by the name of the event. */
export type Told = Record<string, unknown>

/** Tells those who follow. */
export interface Events<T extends Told> {
  tell<K extends keyof T>(name: K, what: T[K]): void
  follow<K extends keyof T>(name: K, told: (what: T[K]) => void): void
}

export function events<T extends Told>(): Events<T> {
  const followers = new Map<keyof T, ((what: never) => void)[]>()
  return {
    tell(name, what) {
      for (const told of followers.get(name) ?? []) told(what as never)
    },
    follow(name, told) {
      followers.set(name, [...(followers.get(name) ?? []), told])
    },
  }
}
