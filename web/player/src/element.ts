type Attributes = Record<string, string | boolean | null | undefined | ((event: Event) => void)>

/** Makes an element; texts become text nodes, so that markup in a lesson is only ever shown. */
export function element<K extends keyof HTMLElementTagNameMap>(
  tag: K,
  attributes?: Attributes,
  ...children: (Node | string | null | undefined)[]
): HTMLElementTagNameMap[K]
export function element(tag: string, attributes?: Attributes, ...children: (Node | string | null | undefined)[]): HTMLElement
export function element(tag: string, attributes: Attributes = {}, ...children: (Node | string | null | undefined)[]): HTMLElement {
  const made = document.createElement(tag)
  for (const [name, value] of Object.entries(attributes)) {
    if (typeof value === 'function') made.addEventListener(name, value)
    else if (value !== false && value !== null && value !== undefined) made.setAttribute(name, value === true ? '' : value)
  }
  made.append(...present(...children))
  return made
}

/** What is there of some things that may be. */
export const present = <T>(...things: (T | null | undefined | false | '')[]): T[] => things.filter((thing) => Boolean(thing)) as T[]
