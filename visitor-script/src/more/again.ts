import type { App } from '../world'
import { scrolledBox, wayDown, watch } from '../moments'
import type { Moment } from '../plan'
import { on, watchOne, watchView } from './watching'

/**
 * Scrolled past a share of the way, in percent, after having been above it; only a page that scrolls has a
 * way.
 */
function watchPassed(share: number, comes: () => void): () => void {
  const whole = document.scrollingElement ?? document.documentElement
  let above = whole.scrollHeight - whole.clientHeight > 1 && wayDown(whole) < share
  return on(window, ['scroll'], (event) => {
    const box = scrolledBox(event)
    if (!box) return
    if (wayDown(box) < share) above = true
    else if (above) comes()
  })
}

/**
 * One moment that must come anew: seconds and clicks count from now, what was scrolled or seen must be so
 * once more.
 */
function watchAnew({ anew = {} }: Moment, comes: () => void): () => void {
  const { after, read, view } = anew
  if (read !== undefined) return watchPassed(read, comes)
  if (view !== undefined) return watchView(view, comes, true)
  if (after === undefined) return watchOne(anew, comes)
  const timer = setTimeout(comes, after * 1000)
  return () => clearTimeout(timer)
}

/** Those that may come again on the same page are watched anew from when they were closed. */
export function comeAgain(app: App): void {
  const watched = new Map<string, () => void>()
  document.addEventListener('intavo:closed', (event) => {
    const { id } = (event as CustomEvent<{ id: string }>).detail
    watched.get(id)?.()
    const entry = app.entries.find((one) => one.id === id)
    if (!entry?.again || !entry.moments.length) return
    const here = location.pathname + location.search
    const anew = entry.moments.map((all) => all.map((moment) => ({ anew: moment })))
    const come = (): void => {
      if (here === location.pathname + location.search) app.ready(entry)
    }
    watched.set(id, watch(anew, come, watchAnew))
  })
}
