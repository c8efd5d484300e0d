const TOUCH_AFTER = 10_000
const FAST_UP = 1.2

/** About to leave: the pointer goes out at the top; on touch a fast scroll up after 10 s, or coming back to the tab. */
export function watchLeaving(leaves: () => void): () => void {
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
