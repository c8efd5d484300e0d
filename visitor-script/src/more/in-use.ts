/** How long something counts as in a visitor's hands after they last touched it. */
export const LIVELY = 120_000

const timers = new WeakMap<HTMLElement, number>()

/**
 * Marks what a visitor is at. Nothing interrupts them there: the plan names the mark among what goes first.
 */
export function inUse(host: HTMLElement, is = true): void {
  clearTimeout(timers.get(host))
  host.toggleAttribute('data-intavo-in-use', is)
  if (is)
    timers.set(
      host,
      window.setTimeout(() => inUse(host, false), LIVELY),
    )
}
