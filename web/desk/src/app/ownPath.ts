/**
 * The address where somebody who has signed in is sent, as it was asked for: only an address on this server. It is read as browsers
 * read it (the URL Standard), which leave out tabs and take a backslash for a slash; so nothing that leads elsewhere looks like a path of ours.
 */
export function ownPath(asked: string | null, origin: string): string | undefined {
  if (!asked?.startsWith('/') || !URL.canParse(asked, origin)) return undefined
  const url = new URL(asked, origin)
  // The whole of it: a path by itself may begin with two slashes, which is another host.
  return url.origin === origin && url.pathname !== '/sign-in' ? url.href : undefined
}

/** Where somebody was before they were asked to sign in. */
export const wantedPage = () => ownPath(new URLSearchParams(location.search).get('to'), location.origin)
