import type { Moment } from './plan'

const SHORT_PAGE_DOWN_AFTER = 5000
const LARGE = 0.5

const whole = (): Element => document.scrollingElement ?? document.documentElement
const room = (box: Element): number => box.scrollHeight - box.clientHeight
const scrolls = (box: Element): boolean =>
  room(box) > 1 && (box === whole() || /auto|scroll/.test(getComputedStyle(box).overflowY))
const large = (box: Element): boolean => box.clientWidth * box.clientHeight > LARGE * innerWidth * innerHeight

/** How far down a box is scrolled, in percent of the way; within a pixel of the foot is all the way. */
export function wayDown(box: Element): number {
  return scrolls(box) ? (100 * Math.min(box.scrollTop + 1, room(box))) / room(box) : 0
}

/** What was scrolled, if that is the page or, where the page itself does not scroll, a large box of it. */
export function scrolledBox({ target }: Event): Element | null {
  if (target instanceof Element && target !== whole())
    return !scrolls(whole()) && large(target) ? target : null
  return whole()
}

/** Whether nothing of the page can be scrolled but small boxes. */
function short(): boolean {
  return ![whole(), ...document.querySelectorAll('body,body *')].some(
    (one) => (one === whole() || large(one)) && scrolls(one),
  )
}

/** Watches for one moment of the kinds that come with the rest of the code; gives back how to stop. */
export type Watch = (moment: Moment, comes: () => void) => () => void

/** Whether a moment needs the rest of the code. */
export const special = (moment: Moment): boolean => moment.after === undefined && moment.read === undefined

/**
 * Calls back once, when all parts of any alternative have come. Gives back how to stop watching.
 * How far down counts by what is scrolled: a page's first screen is no part of the way. A page that cannot be
 * scrolled counts as fully down after 5 s.
 */
export function watch(
  moments: Moment[][],
  come: () => void,
  watchOne: Watch = () => () => undefined,
  started = performance.now(),
): () => void {
  let furthest = wayDown(whole())
  const came = new Set<Moment>()
  const stops: (() => void)[] = []
  const done = (moment: Moment): boolean => {
    if (special(moment)) return came.has(moment)
    const elapsed = performance.now() - started
    if (moment.after !== undefined) return elapsed >= moment.after * 1000 - 20
    return furthest >= (moment.read ?? 100) || (elapsed >= SHORT_PAGE_DOWN_AFTER - 20 && short())
  }
  const look = (): void => {
    if (!moments.some((all) => all.every(done))) return
    stop()
    come()
  }
  const onScroll = (event: Event): void => {
    const box = scrolledBox(event)
    if (!box) return
    furthest = Math.max(furthest, wayDown(box))
    look()
  }
  const stop = (): void => {
    stops.splice(0).forEach((one) => one())
    removeEventListener('scroll', onScroll, true)
  }
  addEventListener('scroll', onScroll, { passive: true, capture: true })
  for (const moment of moments.flat()) {
    if (special(moment)) {
      stops.push(
        watchOne(moment, () => {
          came.add(moment)
          look()
        }),
      )
    } else {
      const timer = setTimeout(
        look,
        started - performance.now() + 1000 * (moment.after ?? SHORT_PAGE_DOWN_AFTER / 1000),
      )
      stops.push(() => clearTimeout(timer))
    }
  }
  return stop
}
