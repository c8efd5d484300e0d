import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']

/** What went wrong, in words; `fields` says it by field. Status 0: no connection. */
export class Failure extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly fields: Record<string, string> = {},
  ) {
    super(message)
  }
}

interface Problem {
  title?: string
  errors?: { field: string; message: string }[]
}

export function csrf(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

let signedOut: (() => unknown) | null = null
/** What is done once the server says that nobody is signed in any more. */
export function onSignedOut(how: () => unknown): void {
  signedOut = how
}

const A_MOMENT = 300
let asking: Promise<boolean> | null = null
/**
 * Whether nobody is signed in, or to no business any more: asked once more a moment later: with another password a session gets another
 * name, and a request that was on its way meanwhile found nobody.
 */
export function nobodyIsIn(): Promise<boolean> {
  asking ??= new Promise((go) => setTimeout(go, A_MOMENT))
    .then(() => fetch('/api/me'))
    .then(
      async (answer) => answer.status === 401 || !((await answer.json()) as Schemas['MeOut']).business,
      () => false,
    )
    .finally(() => (asking = null))
  return asking
}

const NO_CONNECTION = 'There is no connection to Intavo. Nothing was lost; please try again.'

export const client = createClient<paths>({ baseUrl: '' })
client.use({
  onRequest({ request }) {
    request.headers.set('X-CSRFToken', csrf())
    return request
  },
  onResponse({ response }) {
    if (response.status === 401) signedOut?.()
  },
  onError() {
    return new Failure(0, NO_CONNECTION)
  },
})

/** The data of an answer; throws a Failure in words otherwise. */
export async function take<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call
  if (response.ok) return data as T
  const problem = (error ?? {}) as Problem
  const fields = Object.fromEntries((problem.errors ?? []).map((one) => [one.field, one.message]))
  const message = problem.title ?? 'Intavo could not do this. Nothing was lost; please try again.'
  throw new Failure(response.status, message, fields)
}

/**
 * Sends a file with what is said of it; throws a Failure in words, `otherwise` where the server says none.
 */
export async function sendFile<T>(
  address: string,
  file: File,
  otherwise: string,
  about: Record<string, string> = {},
): Promise<T> {
  const body = new FormData()
  body.append('file', file)
  for (const [name, value] of Object.entries(about)) body.append(name, value)
  const answer = await fetch(address, { method: 'POST', body, headers: { 'X-CSRFToken': csrf() } }).catch(
    () => null,
  )
  if (!answer) throw new Failure(0, NO_CONNECTION)
  const said = (await answer.json().catch(() => ({}))) as T & Problem
  if (!answer.ok) throw new Failure(answer.status, said.title ?? otherwise)
  return said
}
