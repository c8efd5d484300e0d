import type { Moment } from './plan'

const SHORT_PAGE_READ_AFTER = 5000

/** The share of the page that has been on screen, in percent. */
function readShare(): number {
  const whole = document.documentElement.scrollHeight
  return whole <= innerHeight + 1 ? 0 : (100 * (scrollY + innerHeight)) / whole
}

/**
 * Calls back once, when all parts of any alternative have come. Gives back how to stop watching.
 * Reading counts once the visitor has scrolled: a page's first screen is not read by opening it. A page
 * no longer than the screen counts as read after 5 s.
 */
export function watch(moments: Moment[][], come: () => void): () => void {
  const started = performance.now()
  let furthest = 0
  let scrolled = false
  const timers: number[] = []
  const done = (moment: Moment): boolean => {
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
  const stop = (): void => {
    timers.forEach(clearTimeout)
    removeEventListener('scroll', onScroll)
  }
  addEventListener('scroll', onScroll, { passive: true })
  const waits = moments.flat().map((moment) => (moment.after === undefined ? SHORT_PAGE_READ_AFTER : moment.after * 1000))
  for (const wait of new Set(waits)) timers.push(window.setTimeout(look, wait))
  return stop
}
