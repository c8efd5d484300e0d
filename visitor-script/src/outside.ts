import { clock } from './clean'

/** What of the browser the script stands on. A rehearsal puts others in their places, as the tests do. */
export interface Outside {
  /** Says a text to an address of the site's. */
  post(path: string, body: string, signal?: AbortSignal | null): Promise<Response>
  /** The same as the page goes away; nobody hears of the answer. */
  leave(path: string, body: string): void
  /** Where is remembered; the browser may refuse it. */
  shelf(): Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>
  /** The time by the browser's own clock, in milliseconds since 1970 (UTC). */
  clock(): number
}

/** The browser itself. */
export const browser = (base: string): Outside => ({
  // A text is sent as text/plain, which asks no leave of the server beforehand.
  post: (path, body, signal = null) =>
    fetch(`${base}/${path}`, {
      method: 'POST',
      body,
      credentials: 'omit',
      keepalive: body.length < 60000,
      signal,
    }),
  leave: (path, body) => void navigator.sendBeacon?.(`${base}/${path}`, body),
  shelf: () => localStorage,
  clock,
})
