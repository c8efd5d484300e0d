/** Calls back when a single-page site has gone to another address. */
export function watchAddress(changed: () => void): void {
  const address = (): string => location.pathname + location.search
  let last = address()
  const look = (): void => {
    if (last === address()) return
    last = address()
    changed()
  }
  for (const name of ['pushState', 'replaceState'] as const) {
    const original = history[name].bind(history)
    history[name] = (...args: Parameters<History['pushState']>) => {
      original(...args)
      setTimeout(look)
    }
  }
  addEventListener('popstate', () => setTimeout(look))
}

/** Calls back once half of an element has been on screen for a second. */
export function whenSeen(element: Element, seen: () => void): () => void {
  let timer = 0
  const observer = new IntersectionObserver(
    ([entry]) => {
      clearTimeout(timer)
      if (!entry || entry.intersectionRatio < 0.5) return
      timer = window.setTimeout(() => {
        observer.disconnect()
        seen()
      }, 1000)
    },
    { threshold: [0, 0.5] },
  )
  observer.observe(element)
  return () => {
    clearTimeout(timer)
    observer.disconnect()
  }
}
