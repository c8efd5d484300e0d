import type { App } from '../world'

const OLD = 60_000 // milliseconds
let app: App | null = null
let askedAt = 0

export function freshFrom(one: App): void {
  app = one
  askedAt = performance.now()
}

/**
 * What is known of the ways to reach the business is asked for again where it is over a minute old; says if
 * it was.
 */
export async function refreshed(): Promise<boolean> {
  if (!app || performance.now() - askedAt < OLD) return false
  askedAt = performance.now()
  return (await app.ask()) !== null
}
