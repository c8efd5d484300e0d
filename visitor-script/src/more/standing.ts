import type { Drawing } from '../render/drawing'
import type { Feature } from '../render/feature'
import { standBar } from './bars'
import { keepArranged } from './corners'

/** A bar at the edge, which moves the page aside where it can. */
export const bar = (drawing: Drawing): Feature => {
  const { around, document, mode } = drawing
  if (document.stance !== 'bar' || mode === 'inline') return {}

  /** Said once for each revision; the owner reads it where the touchpoint is looked over. */
  const liesOver = (): void => {
    const { memo, entry } = around
    const revision = String(entry?.revision)
    if (mode !== 'live' || memo('over') === revision) return
    memo('over', revision)
    drawing.actions.over?.()
  }
  return {
    stands: () => {
      const { card, held, host, look, page } = drawing
      held.push(standBar(page, host, card, look, liesOver))
    },
    shown: () => {
      const { card, undo } = drawing
      let high = card.offsetHeight
      // With its height the room that it needs.
      const sizes = new ResizeObserver(() => {
        if (card.offsetHeight === high) return
        high = card.offsetHeight
        drawing.stand()
      })
      sizes.observe(card)
      undo.push(() => sizes.disconnect())
      if (mode === 'live') undo.push(watchOver(drawing))
    },
  }
}

/**
 * The page has its room back for as long as the bar does not stand on it, whatever took it away or hides it;
 * gives back how to stop.
 */
function watchOver(drawing: Drawing): () => void {
  const { card, held, host, view } = drawing
  let stood = true
  const look = setInterval(() => {
    const stands = host.isConnected && card.checkVisibility?.({ visibilityProperty: true }) !== false
    if ((stands ? stood : !held.length) || view.matchMedia('print').matches) return
    stood = stands
    if (stands) drawing.stand()
    else held.splice(0).forEach((release) => release())
  }, 400)
  return () => clearInterval(look)
}

/** Gone after its seconds, but not while somebody is in it. */
export const goesByItself = (drawing: Drawing): Feature => {
  const seconds = drawing.document.leaving.after
  if (drawing.mode !== 'live' || seconds === null) return {}
  return {
    shown: () => {
      const look = (): void => {
        const active = drawing.root.activeElement
        const inIt = drawing.card.matches(':hover') || (active !== null && active !== drawing.heading())
        if (inIt) timer = window.setTimeout(look, 1000)
        else drawing.actions.close()
      }
      let timer = window.setTimeout(look, seconds * 1000)
      drawing.undo.push(() => clearTimeout(timer))
    },
  }
}

/** What stands at the edges of the screen stands on nothing else there. */
export const arranged = ({ document, mode, page }: Drawing): Feature =>
  mode === 'live' && ['button', 'card', 'bar'].includes(document.stance)
    ? { shown: () => keepArranged(page) }
    : {}

/** Leads to a spot of the page. */
export const spots = (drawing: Drawing): Feature => ({
  clicked: (does) => {
    if (does.action !== 'spot') return
    const { page, view } = drawing
    drawing.leave()
    const behavior = view.matchMedia('(prefers-reduced-motion:reduce)').matches ? 'auto' : 'smooth'
    if (does.spot === 'top' || does.spot === 'bottom')
      view.scrollTo({ top: does.spot === 'top' ? 0 : page.body.scrollHeight, behavior })
    else page.getElementById(does.spot)?.scrollIntoView({ behavior })
  },
})
