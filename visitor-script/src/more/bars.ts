/** Bars: they push the page or lie over it, stay in view as they should, and never hide the page's own header. */
import type { FullValues } from '../render/types'

/** What of the site's own is held at the top. */
function pinned(page: Document, view: Window): HTMLElement | undefined {
  const there = page.elementsFromPoint(view.innerWidth / 2, 2) as HTMLElement[]
  return there.find((one) => /fixed|sticky/.test(view.getComputedStyle(one).position))
}

function headerFoot(page: Document): number {
  const header = page.querySelector('header,[role=banner]')
  const box = header?.getBoundingClientRect()
  return box && box.top <= 1 && box.bottom > 0 && box.height < 240 ? box.bottom : 0
}

/** Room for the bar at an end of the page; what the visitor looks at just now stays where it is. */
function push(page: Document, end: 'Top' | 'Bottom', height: number): () => void {
  const view = page.defaultView ?? window
  const of = end === 'Top' ? page.documentElement : page.body
  const before = of.style[`padding${end}`]
  const own = parseFloat(view.getComputedStyle(of)[`padding${end}`]) || 0
  const give = (room: string, by: number): void => {
    const down = end === 'Top' && view.scrollY
    of.style.overflowAnchor = 'none'
    of.style[`padding${end}`] = room
    if (down) view.scrollBy({ top: by, behavior: 'instant' })
    of.style.overflowAnchor = ''
  }
  give(`${own + height}px`, height)
  return () => give(before, -height)
}

/** Puts a bar on the page; gives back how to take it away again without a trace. */
export function standBar(page: Document, host: HTMLElement, card: HTMLElement, look: FullValues): () => void {
  const view = page.defaultView ?? window
  const { place, pushes, stays } = look
  const height = card.offsetHeight
  if (place !== 'top') return pushes ? push(page, 'Bottom', height) : () => undefined
  const header = pushes ? pinned(page, view) : null
  const before = header?.style.top ?? ''
  const back = pushes ? push(page, 'Top', height) : () => undefined
  page.body.prepend(host)
  const came = view.scrollY
  const follow = (): void => {
    // One that does not stay goes with the page, from where it came.
    const gone = stays ? 0 : Math.min(height + 40, Math.max(0, view.scrollY - came))
    host.style.setProperty('--from-top', `${(pushes ? 0 : headerFoot(page)) - gone}px`)
    if (header) header.style.top = `${Math.max(0, height - gone)}px`
  }
  follow()
  view.addEventListener('scroll', follow, { passive: true })
  return () => {
    view.removeEventListener('scroll', follow)
    if (header) header.style.top = before
    back()
  }
}
