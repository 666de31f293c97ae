const browsers: [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/OPR\//, 'Opera'],
  [/Firefox\//, 'Firefox'],
  [/Chrome\//, 'Chrome'],
  [/Safari\//, 'Safari'],
]
const systems: [RegExp, string][] = [
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'macOS'],
  [/Linux|X11/, 'Linux'],
]

/** A browser as people call it, from what it says it is; what says nothing that is known stands as it is. */
export function browserName(said: string | null): string {
  if (!said) return 'A program that does not say what it is'
  const named = (list: [RegExp, string][]) => list.find(([sign]) => sign.test(said))?.[1]
  const [browser, system] = [named(browsers), named(systems)]
  return browser ? browser + (system ? ` on ${system}` : '') : said.slice(0, 60)
}
