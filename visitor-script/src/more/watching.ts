import { scrolledBox, wayDown } from '../moments'
import type { Moment } from '../plan'

const TOUCH_AFTER = 10_000
const FAST_UP = 1.2

/**
 * About to leave: the pointer goes out at the top; on touch a fast scroll up after 10 s, or coming back to
 * the tab.
 */
function watchLeaving(leaves: () => void): () => void {
  const touch = matchMedia('(pointer: coarse)').matches
  const began = performance.now()
  let lastY = scrollY
  let lastAt = began
  const out = (event: MouseEvent): void => {
    if (!touch && event.clientY <= 0 && !event.relatedTarget) leaves()
  }
  const scrolled = (): void => {
    const now = performance.now()
    const speed = (lastY - scrollY) / Math.max(1, now - lastAt)
    if (touch && now - began > TOUCH_AFTER && speed > FAST_UP) leaves()
    lastY = scrollY
    lastAt = now
  }
  const back = (): void => {
    if (touch && document.visibilityState === 'visible') leaves()
  }
  document.addEventListener('mouseout', out)
  document.addEventListener('visibilitychange', back)
  addEventListener('scroll', scrolled, { passive: true })
  return () => {
    document.removeEventListener('mouseout', out)
    document.removeEventListener('visibilitychange', back)
    removeEventListener('scroll', scrolled)
  }
}

export function on(target: EventTarget, names: string[], listener: (event: Event) => void): () => void {
  for (const name of names) target.addEventListener(name, listener, { passive: true, capture: true })
  return () => names.forEach((name) => target.removeEventListener(name, listener, { capture: true }))
}
const matches = (event: Event, selector: string): boolean =>
  event.target instanceof Element && event.target.closest(selector) !== null
const ours = (event: Event): boolean =>
  event.composedPath().some((one) => one instanceof Element && one.hasAttribute('data-intavo-touchpoint'))

/**
 * Half of an element on screen, or as much as the screen holds of it; `anew`: after having been out of it.
 */
export function watchView(selector: string, comes: () => void, anew = false): () => void {
  let wasOut = !anew
  const observer = new IntersectionObserver(
    (entries) => {
      const seen = entries.some(
        (one) => one.intersectionRatio >= 0.5 || one.intersectionRect.height >= innerHeight / 2,
      )
      if (seen && wasOut) comes()
      wasOut ||= !seen
    },
    { threshold: [0, 0.25, 0.5, 1] },
  )
  let watched: Element | null = null
  // It may come onto the page later.
  const look = (): void => {
    const found = document.querySelector(selector)
    if (!found || found === watched) return
    watched = found
    observer.observe(found)
  }
  const changes = new MutationObserver(look)
  changes.observe(document, { childList: true, subtree: true })
  look()
  return () => {
    changes.disconnect()
    observer.disconnect()
  }
}

/** Nothing done for so many seconds: no key, no scrolling, no pointer. */
function watchIdle(seconds: number, comes: () => void): () => void {
  let timer = setTimeout(comes, seconds * 1000)
  const stop = on(window, ['pointermove', 'pointerdown', 'keydown', 'scroll', 'touchmove'], () => {
    clearTimeout(timer)
    timer = setTimeout(comes, seconds * 1000)
  })
  return () => {
    clearTimeout(timer)
    stop()
  }
}

/** Back up to a share of the way down, in percent, after having been further down. */
function watchUp(share: number, comes: () => void): () => void {
  let further = wayDown(document.scrollingElement ?? document.documentElement) > share + 1
  return on(window, ['scroll'], (event) => {
    const box = scrolledBox(event)
    if (!box) return
    const now = wayDown(box)
    if (now > share + 1) further = true
    else if (further) comes()
  })
}

/**
 * Watches for one moment; gives back how to stop. What is done inside a touchpoint is not done on the page.
 */
export function watchOne(moment: Moment, comes: () => void): () => void {
  const { leave, view, clicks, idle, up, click } = moment
  if (leave) return watchLeaving(comes)
  if (view !== undefined) return watchView(view, comes)
  if (idle !== undefined) return watchIdle(idle, comes)
  if (up !== undefined) return watchUp(up, comes)
  let count = 0
  return on(document, ['click'], (event) => {
    if (ours(event) || (click !== undefined && !matches(event, click))) return
    if (++count >= (clicks ?? 1)) comes()
  })
}
