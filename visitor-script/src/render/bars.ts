/** Bars: they push the page or lie over it, and never hide the page's own header. */

function pinned(page: Document, own: Element): HTMLElement | null {
  const view = page.defaultView ?? window
  for (const found of page.elementsFromPoint(view.innerWidth / 2, 2)) {
    for (let one: Element | null = found; one && one !== page.body; one = one.parentElement) {
      if (one === own) break
      if (one instanceof view.HTMLElement && ['fixed', 'sticky'].includes(view.getComputedStyle(one).position)) return one
    }
  }
  return null
}

function headerFoot(page: Document): number {
  const header = page.querySelector('header,[role=banner]')
  const box = header?.getBoundingClientRect()
  return box && box.top <= 1 && box.bottom > 0 && box.height < 240 ? box.bottom : 0
}

/** Puts a bar on the page; gives back how to take it away again without a trace. */
export function standBar(page: Document, host: HTMLElement, card: HTMLElement, place: string, pushes: boolean): () => void {
  const view = page.defaultView ?? window
  const { body } = page
  if (place === 'top' && pushes) {
    const header = pinned(page, host)
    body.prepend(host)
    card.classList.add('in-flow')
    if (!header || view.getComputedStyle(header).position !== 'fixed') return () => undefined
    const before = header.style.top
    const follow = (): void => {
      header.style.top = `${Math.max(0, card.getBoundingClientRect().bottom)}px`
    }
    follow()
    view.addEventListener('scroll', follow, { passive: true })
    return () => {
      view.removeEventListener('scroll', follow)
      header.style.top = before
    }
  }
  if (place === 'bottom' && pushes) {
    const before = body.style.paddingBottom
    const own = parseFloat(view.getComputedStyle(body).paddingBottom) || 0
    body.style.paddingBottom = `${own + card.offsetHeight}px`
    return () => (body.style.paddingBottom = before)
  }
  if (place === 'top') {
    const follow = (): void => host.style.setProperty('--from-top', `${headerFoot(page)}px`)
    follow()
    view.addEventListener('scroll', follow, { passive: true })
    return () => view.removeEventListener('scroll', follow)
  }
  return () => undefined
}
