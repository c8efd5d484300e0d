import type { Moment } from './plan'

const SHORT_PAGE_READ_AFTER = 5000

/** The share of the page that has been on screen, in percent. */
function readShare(): number {
  const whole = document.documentElement.scrollHeight
  return whole <= innerHeight + 1 ? 0 : (100 * (scrollY + innerHeight)) / whole
}

/** Watches for the visitor being about to leave; it comes with the rest of the code. */
export type Leaving = (leaves: () => void) => () => void

/**
 * Calls back once, when all parts of any alternative have come. Gives back how to stop watching.
 * Reading counts once the visitor has scrolled: a page's first screen is not read by opening it. A page
 * no longer than the screen counts as read after 5 s.
 */
export function watch(moments: Moment[][], come: () => void, watchLeaving: Leaving = () => () => undefined): () => void {
  const started = performance.now()
  let furthest = 0
  let scrolled = false
  const timers: number[] = []
  let leaving = false
  const done = (moment: Moment): boolean => {
    if (moment.leave) return leaving
    const elapsed = performance.now() - started
    if (moment.after !== undefined) return elapsed >= moment.after * 1000 - 20
    const short = document.documentElement.scrollHeight <= innerHeight + 1
    return short ? elapsed >= SHORT_PAGE_READ_AFTER - 20 : scrolled && furthest >= (moment.read ?? 100)
  }
  const look = (): void => {
    furthest = Math.max(furthest, readShare())
    if (!moments.some((all) => all.every(done))) return
    stop()
    come()
  }
  const onScroll = (): void => {
    scrolled = true
    look()
  }
  const unwatch = moments.flat().some((moment) => moment.leave)
    ? watchLeaving(() => {
        leaving = true
        look()
      })
    : () => undefined
  const stop = (): void => {
    timers.forEach(clearTimeout)
    unwatch()
    removeEventListener('scroll', onScroll)
  }
  addEventListener('scroll', onScroll, { passive: true })
  const timed = moments.flat().filter((moment) => !moment.leave)
  const waits = timed.map((moment) => (moment.after === undefined ? SHORT_PAGE_READ_AFTER : moment.after * 1000))
  for (const wait of new Set(waits)) timers.push(window.setTimeout(look, wait))
  return stop
}
