const BY_HAND = ['wheel', 'touchmove', 'keydown', 'pointerdown']
const SETTLES = 5000

/**
 * Brings a part of a page into view, and keeps it there while what stands above it is still coming; whoever
 * scrolls, presses or types meanwhile is left where they are.
 */
export function reach(part: HTMLElement): void {
  const show = (): void => part.scrollIntoView({ block: 'start' })
  const growing = new ResizeObserver(show)
  const stop = (): void => {
    growing.disconnect()
    clearTimeout(settled)
    BY_HAND.forEach((kind) => removeEventListener(kind, stop, true))
  }
  const settled = setTimeout(stop, SETTLES)
  BY_HAND.forEach((kind) => addEventListener(kind, stop, { capture: true, passive: true }))
  for (let around = part.parentElement; around && around !== document.body; around = around.parentElement)
    growing.observe(around)
  show()
}
