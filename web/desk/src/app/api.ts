import createClient from 'openapi-fetch'
import type { components, paths } from '../../../common/api.gen'

export type Schemas = components['schemas']

/** What the server says when a person can mend something (RFC 9457). */
export class Refused extends Error {
  constructor(
    sentence: string,
    readonly status: number,
    readonly code?: string,
    readonly field?: string,
  ) {
    super(sentence)
  }
}

export const api = createClient<paths>({ baseUrl: '/' })

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The answer's data, or a Refused with the server's own sentence. */
export async function taken<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await call
  } catch {
    throw new Refused('The server cannot be reached. What you see stays; try again when the connection is back.', 0)
  }
  if (answer.response.ok) return answer.data as T
  throw refusal(answer.error, answer.response.status)
}

export function refusal(error: unknown, status: number): Refused {
  const problem = (error ?? {}) as { detail?: string; code?: string; field?: string }
  if (status === 401 && !problem.detail) return new Refused('You are no longer signed in. Sign in again; nothing is lost.', status)
  return new Refused(problem.detail ?? `The server answered ${status} without saying why. Its log has the reason.`, status, problem.code, problem.field)
}

/** Sends a file as it is. */
export async function sent<T>(path: string, file: File): Promise<T> {
  return taken(
    (async () => {
      const response = await fetch(path, { method: 'PUT', headers: { 'Content-Type': 'application/octet-stream' }, body: file })
      const said = await response.json()
      return response.ok ? { data: said as T, response } : { error: said, response }
    })(),
  )
}
