import { wipe } from '@/lib/kept'
import { csrf, Failure } from './client'

interface Flows {
  flows?: { id: string; is_pending?: boolean }[]
}

interface Answer<Data = Flows, Meta = object> {
  status: number
  errors?: { message: string; param?: string; code: string }[]
  data?: Data
  meta?: Meta
}

/** What was asked for needs the password once more. */
export class PasswordNeeded extends Error {}

const WORDS: Record<string, string> = {
  email_password_mismatch: 'This email address and password do not belong together.',
  too_many_login_attempts: 'Too many tries. Please wait five minutes, or set a new password.',
  invalid_or_expired_key: 'This link has been used already, or is too old.',
  invalid_password_reset: 'This link has been used already, or is too old.',
  incorrect_password: 'This is not your password.',
  enter_current_password: 'This is not your password.',
  incorrect_code: 'This is not the code of just now. Look at your authenticator again.',
  email_taken: 'Another account has this address.',
}

async function call<Data = Flows, Meta = object>(
  method: string,
  path: string,
  body?: object,
): Promise<Answer<Data, Meta>> {
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
  const answer = (await response.json()) as Answer<Data, Meta>
  if (response.status === 401 && waitsFor(answer as Answer, 'reauthenticate')) throw new PasswordNeeded()
  const first = answer.errors?.[0]
  if (first) {
    const fields = Object.fromEntries(
      (answer.errors ?? []).map((one) => [one.param ?? '', WORDS[one.code] ?? one.message]),
    )
    throw new Failure(response.status, WORDS[first.code] ?? first.message, fields)
  }
  return answer
}

const waitsFor = (answer: Answer, flow: string): boolean =>
  !!answer.data?.flows?.some((one) => one.id === flow && (one.is_pending ?? true))

/** `verify`: the address has to be confirmed by mail first; `code`: their authenticator has to say one. */
export async function signIn(email: string, password: string): Promise<'in' | 'verify' | 'code'> {
  const asked = () => call('POST', 'auth/login', { email, password })
  let answer = await asked()
  if (answer.status === 409) {
    // Somebody is signed in here already, perhaps somebody else.
    await signOut()
    answer = await asked()
  }
  if (answer.status === 200) return 'in'
  return waitsFor(answer, 'mfa_authenticate') ? 'code' : 'verify'
}

/** The second step of signing in: the authenticator's code, or one kept for when it is lost. */
export async function signInWithCode(code: string): Promise<void> {
  await call('POST', 'auth/2fa/authenticate', { code: code.replace(/\s/g, '') })
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

/** Say the password once more, for what needs it. */
export async function sayPassword(password: string): Promise<void> {
  await call('POST', 'auth/reauthenticate', { password })
}

export async function changePassword(current_password: string, new_password: string): Promise<void> {
  await call('POST', 'account/password/change', { current_password, new_password })
}

export interface Address {
  email: string
  verified: boolean
  primary: boolean
}

/** The address of the account, and the one that is to take its place once it is confirmed. */
export async function readAddresses(): Promise<Address[]> {
  return (await call<Address[]>('GET', 'account/email')).data ?? []
}

export async function changeAddress(email: string): Promise<void> {
  await call('POST', 'account/email', { email })
}

export async function giveUpAddress(email: string): Promise<void> {
  await call('DELETE', 'account/email', { email })
}

export interface Session {
  id: number
  user_agent: string
  ip: string
  created_at: number
  is_current: boolean
}

export async function readSessions(): Promise<Session[]> {
  return (await call<Session[]>('GET', 'auth/sessions')).data ?? []
}

export async function endSessions(sessions: number[]): Promise<void> {
  await call('DELETE', 'auth/sessions', { sessions })
}

/** Since when an authenticator is asked (Unix time), and how many kept codes are left; null where none is. */
export async function readAuthenticator(): Promise<{ since: number; codes: number } | null> {
  const { data = [] } = await call<{ type: string; created_at: number; unused_code_count?: number }[]>(
    'GET',
    'account/authenticators',
  )
  const found = data.find((one) => one.type === 'totp')
  const codes = data.find((one) => one.type === 'recovery_codes')?.unused_code_count ?? 0
  return found ? { since: found.created_at, codes } : null
}

/**
 * What an authenticator is set up with: a secret to type, and the address that holds it, to be read as a QR
 * code.
 */
export async function offerAuthenticator(): Promise<{ secret: string; url: string }> {
  const { meta } = await call<Flows, { secret: string; totp_url: string }>(
    'GET',
    'account/authenticators/totp',
  )
  if (!meta?.secret) throw new Failure(409, 'There is an authenticator already.')
  return { secret: meta.secret, url: meta.totp_url }
}

export async function startAuthenticator(code: string): Promise<void> {
  await call('POST', 'account/authenticators/totp', { code: code.replace(/\s/g, '') })
}

export async function stopAuthenticator(): Promise<void> {
  await call('DELETE', 'account/authenticators/totp')
}

/** The codes that came with the authenticator, which are shown once. */
export async function firstCodes(): Promise<string[]> {
  const answer = await call<{ unused_codes?: string[] }>('GET', 'account/authenticators/recovery-codes')
  return answer.data?.unused_codes ?? []
}

/** New codes for when the authenticator is lost; the ones before hold no longer. */
export async function newCodes(): Promise<string[]> {
  const answer = await call<{ unused_codes?: string[] }>('POST', 'account/authenticators/recovery-codes')
  return answer.data?.unused_codes ?? []
}

/** Load the application anew, so that nothing of who was signed in before stays. */
export function startAnew(path: string): void {
  void wipe().finally(() => location.assign(path))
}
