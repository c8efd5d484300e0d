/** The short names that the page gives places of its own to. */
export const slots = (): string[] =>
  [...document.querySelectorAll<HTMLElement>('[data-intavo]')]
    .map((one) => one.dataset.intavo ?? '')
    .filter((name) => /^[\w-]{1,100}$/.test(name))
    .slice(0, 50)

const SCROLLED_JUST_NOW = 500

/** What makes an address another page: a hash only where it is a route. */
const address = (): string => location.pathname + location.search + (/^#!?\/.*/.exec(location.hash) ?? '')

/**
 * Calls back when a single-page site has gone to another address; what is replaced while they scroll is none.
 */
export function watchAddress(changed: () => void): void {
  let last = address()
  let scrolledAt = -Infinity
  const look = (how?: string): void => {
    const marks = how === 'replace' && performance.now() - scrolledAt < SCROLLED_JUST_NOW
    setTimeout(() => {
      if (last === address()) return
      last = address()
      if (!marks) changed()
    })
  }
  addEventListener('scroll', () => (scrolledAt = performance.now()), { passive: true, capture: true })
  const { navigation } = window as { navigation?: EventTarget }
  if (navigation)
    navigation.addEventListener('currententrychange', (event) =>
      look((event as Event & { navigationType?: string }).navigationType),
    )
  // Where the browser does not say, it is looked at now and then, rather than in the page's own functions.
  else setInterval(look, 400)
}

/** Calls back, a moment later, when something of the page has come or gone. */
export function watchPage(changed: () => void): void {
  let timer = 0
  new MutationObserver(() => {
    timer ||= +setTimeout(() => {
      timer = 0
      changed()
    }, 100)
  }).observe(document, { childList: true, subtree: true })
}

/** Calls back once half of an element has been on screen for a second; never where the page has broken the browser's watch. */
export function whenSeen(element: Element, seen: () => void): () => void {
  let timer = 0
  let observer: IntersectionObserver | undefined
  try {
    observer = new IntersectionObserver(
      (entries) => {
        clearTimeout(timer)
        // Of several at once the last is how it stands now.
        if ((entries.at(-1)?.intersectionRatio ?? 0) < 0.5) return
        timer = +setTimeout(() => {
          observer?.disconnect()
          seen()
        }, 1000)
      },
      { threshold: [0, 0.5] },
    )
    observer.observe(element)
  } catch {
    // It is not counted as seen, and works all the same.
  }
  return () => {
    clearTimeout(timer)
    observer?.disconnect()
  }
}
