import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

/** Asks the running server's database. */
export const sql = (port, text) =>
  execFileSync('psql', ['-h', '127.0.0.1', '-p', String(Number(port) + 3), '-U', 'wexel', '-d', 'wexel', '-tAc', text], {
    env: { ...process.env, PGPASSWORD: readFileSync(`${process.env.WEXEL_STATE}/postgres.password`, 'utf8') },
  })
    .toString()
    .trim()

/** Signs in at the running server as the demo's trainer: the cookie, and a way to ask. */
export async function signIn(base) {
  const signedIn = await fetch(`${base}/api/sign-in`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email: 'mara.tarn@brackwater.example', password: 'Ferry-2026' }),
  })
  const cookie = signedIn.headers.get('set-cookie').split(';')[0]
  const ask = async (method, path, body) => {
    const answer = await fetch(base + path, { method, headers: { Cookie: cookie, 'Content-Type': 'application/json' }, body: body && JSON.stringify(body) })
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`)
    return answer.status === 204 ? undefined : answer.json()
  }
  return { cookie, ask }
}
