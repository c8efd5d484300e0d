import { csrf, Failure } from './client'

interface Answer {
  status: number
  errors?: { message: string; param?: string; code: string }[]
  data?: { flows?: { id: string; is_pending?: boolean }[] }
}

const WORDS: Record<string, string> = {
  email_password_mismatch: 'This email address and password do not belong together.',
  too_many_login_attempts: 'Too many tries. Please wait five minutes, or set a new password.',
  invalid_or_expired_key: 'This link has been used already, or is too old.',
  invalid_password_reset: 'This link has been used already, or is too old.',
}

async function call(method: string, path: string, body?: object): Promise<Answer> {
  let response: Response
  try {
    response = await fetch(`/_allauth/browser/v1/${path}`, {
      method,
      headers: { 'Content-Type': 'application/json', 'X-CSRFToken': csrf() },
      ...(body ? { body: JSON.stringify(body) } : {}),
    })
  } catch {
    throw new Failure(0, 'There is no connection to Intavo. Please try again.')
  }
  if (response.status === 429) throw new Failure(429, 'Too many tries. Please wait a few minutes.')
  const answer = (await response.json()) as Answer
  const first = answer.errors?.[0]
  if (first) {
    const fields = Object.fromEntries((answer.errors ?? []).map((one) => [one.param ?? '', WORDS[one.code] ?? one.message]))
    throw new Failure(response.status, WORDS[first.code] ?? first.message, fields)
  }
  return answer
}

/** `verify`: the address has to be confirmed by mail first. */
export async function signIn(email: string, password: string): Promise<'in' | 'verify'> {
  const answer = await call('POST', 'auth/login', { email, password })
  return answer.status === 200 ? 'in' : 'verify'
}

export async function signUp(email: string, password: string): Promise<void> {
  await call('POST', 'auth/signup', { email, password })
}

/** True when the confirming has also signed in. */
export async function verify(key: string): Promise<boolean> {
  return (await call('POST', 'auth/email/verify', { key })).status === 200
}

export async function requestReset(email: string): Promise<void> {
  await call('POST', 'auth/password/request', { email })
}

export async function resetPassword(key: string, password: string): Promise<boolean> {
  return (await call('POST', 'auth/password/reset', { key, password })).status === 200
}

export async function signOut(): Promise<void> {
  await call('DELETE', 'auth/session')
}

/** Load the application anew, so that nothing of who was signed in before stays. */
export function startAnew(path: string): void {
  location.assign(path)
}
