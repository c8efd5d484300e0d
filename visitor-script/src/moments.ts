import type { Moment } from './plan'

const SHORT_PAGE_READ_AFTER = 5000

/** The share of the page that has been on screen, in percent. */
function readShare(): number {
  const whole = document.documentElement.scrollHeight
  return whole <= innerHeight + 1 ? 0 : (100 * (scrollY + innerHeight)) / whole
}

/** Watches for one moment of the kinds that come with the rest of the code; gives back how to stop. */
export type Watch = (moment: Moment, comes: () => void) => () => void

/** Whether a moment needs the rest of the code. */
export const special = (moment: Moment): boolean => moment.after === undefined && moment.read === undefined

/**
 * Calls back once, when all parts of any alternative have come. Gives back how to stop watching.
 * Reading counts once the visitor has scrolled: a page's first screen is not read by opening it. A page
 * no longer than the screen counts as read after 5 s.
 */
export function watch(moments: Moment[][], come: () => void, watchOne: Watch = () => () => undefined): () => void {
  const started = performance.now()
  let furthest = 0
  let scrolled = false
  const came = new Set<Moment>()
  const stops: (() => void)[] = []
  const done = (moment: Moment): boolean => {
    if (special(moment)) return came.has(moment)
    const elapsed = performance.now() - started
    if (moment.after !== undefined) return elapsed >= moment.after * 1000 - 20
    const short = document.documentElement.scrollHeight <= innerHeight + 1
    return short ? elapsed >= SHORT_PAGE_READ_AFTER - 20 : scrolled && furthest >= (moment.read ?? 100)
  }
  const look = (): void => {
    if (!moments.some((all) => all.every(done))) return
    stop()
    come()
  }
  const onScroll = (): void => {
    scrolled = true
    furthest = Math.max(furthest, readShare())
    look()
  }
  const stop = (): void => {
    stops.splice(0).forEach((one) => one())
    removeEventListener('scroll', onScroll)
  }
  addEventListener('scroll', onScroll, { passive: true })
  for (const moment of moments.flat()) {
    if (special(moment)) {
      stops.push(
        watchOne(moment, () => {
          came.add(moment)
          look()
        }),
      )
    } else {
      const timer = setTimeout(look, moment.after === undefined ? SHORT_PAGE_READ_AFTER : moment.after * 1000)
      stops.push(() => clearTimeout(timer))
    }
  }
  return stop
}
