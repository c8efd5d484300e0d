/** Buttons that share a corner stand above one another, above a bar, and never peek out behind a card. */

const GAP = 10
const OVER = '[data-intavo-touchpoint=card],[data-intavo-touchpoint=bar]'

const inside = (host: Element, selector: string): HTMLElement | null =>
  host.shadowRoot?.querySelector<HTMLElement>(selector) ?? null
const meets = (one: DOMRect, other: DOMRect): boolean =>
  one.left < other.right && other.left < one.right && one.top < other.bottom && other.top < one.bottom

const LEAST_WIDE = 0.6
const MOST_TALL = 0.4

/** How much of the foot of the screen a bar of the site's own takes, that stays there. */
export function footOf(page: Document): number {
  const view = page.defaultView ?? window
  const { innerWidth: wide, innerHeight: tall } = view
  for (const found of page.elementsFromPoint?.(wide / 2, tall - 2) ?? []) {
    if (found.closest('[data-intavo-touchpoint]')) continue
    for (let one: Element | null = found; one; one = one.parentElement) {
      const box = one.getBoundingClientRect()
      const stays = view.getComputedStyle(one).position === 'fixed'
      if (stays && box.width >= wide * LEAST_WIDE && box.height <= tall * MOST_TALL && box.bottom >= tall - 2)
        return tall - box.top
    }
  }
  return 0
}

const close = (one: DOMRect): { x: number; y: number }[] =>
  [0.1, 0.5, 0.9].flatMap((x) =>
    [0.1, 0.5, 0.9].map((y) => ({ x: one.left + x * one.width, y: one.top + y * one.height })),
  )

/** A button of the page's own that stays where ours would stand. */
function theirs(page: Document, face: DOMRect): DOMRect | undefined {
  const view = page.defaultView ?? window
  for (const { x, y } of close(face)) {
    for (const found of page.elementsFromPoint?.(x, y) ?? []) {
      if (found.closest('[data-intavo-touchpoint],[data-intavo-rehearsal]')) continue
      for (let one: Element | null = found; one; one = one.parentElement) {
        const box = one.getBoundingClientRect()
        const small = box.width < LEAST_WIDE * view.innerWidth && box.height < MOST_TALL * view.innerHeight
        if (small && view.getComputedStyle(one).position === 'fixed') return box
      }
    }
  }
  return undefined
}

/** Cards end where a bar begins, so that the last of them can be reached. */
function clearOfBars(cards: HTMLElement[]): void {
  const of = (place: string): number => {
    const bars = cards.filter((one) => one.dataset.stance === 'bar' && one.dataset.place === place)
    return Math.max(0, ...bars.map((one) => one.offsetHeight))
  }
  const [above, below] = [of('top'), of('bottom')]
  for (const card of cards.filter((one) => one.dataset.stance === 'card')) {
    card.style.setProperty('--above', `${above}px`)
    card.style.setProperty('--below', `${below}px`)
  }
}

/** Gives every button of a page its place. */
export function arrange(page: Document): void {
  const corners = new Map<string, number>()
  const faces: DOMRect[] = []
  const strips = [...page.querySelectorAll('[data-intavo-touchpoint=button]')].map(
    (host) => inside(host, '.strip')?.offsetHeight ?? 0,
  )
  const foot = footOf(page) + Math.max(0, ...strips)
  const cards = [...page.querySelectorAll<HTMLElement>(OVER)]
    .filter((one) => !one.inert)
    .flatMap((one) => inside(one, '.card') ?? [])
  clearOfBars(cards)
  for (const host of page.querySelectorAll('[data-intavo-touchpoint=button]')) {
    const dock = inside(host, '.dock')
    const face = inside(host, '.face')
    if (!dock || !face) continue
    const place = dock.dataset.place ?? ''
    const bar = cards
      .filter((one) => one.dataset.stance === 'bar' && place.startsWith(one.dataset.place ?? ''))
      .map((one) => one.offsetHeight)
    const atFoot = !/^top/.test(place)
    const stand = (at: number): DOMRect => {
      dock.style.setProperty(atFoot ? '--below' : '--above', `${at}px`)
      return face.getBoundingClientRect()
    }
    let from = corners.get(place) ?? Math.max(atFoot ? foot : 0, ...bar)
    // On a small screen one in the other corner may be in its way.
    const other = faces.find((each) => meets(each, stand(from)))
    if (other) from += other.height + GAP
    const own = theirs(page, stand(from))
    if (own) {
      const now = face.getBoundingClientRect()
      const aside = atFoot ? now.bottom - own.top : own.bottom - now.top
      if (from + aside + GAP + now.height < (page.defaultView ?? window).innerHeight / 2) from += aside + GAP
    }
    faces.push(stand(from))
    corners.set(place, from + face.offsetHeight + GAP)
    const open = !inside(host, '.card')?.hidden
    dock.style.zIndex = open ? '2147483001' : ''
    const box = face.getBoundingClientRect()
    const hidden =
      !open && cards.some((one) => one.dataset.stance !== 'bar' && meets(box, one.getBoundingClientRect()))
    dock.style.visibility = hidden ? 'hidden' : ''
  }
}

/** Milliseconds in which what the page changes in itself is looked at together, however often it does. */
const TOGETHER = 150
let watching: { page: Document; look: () => void } | null = null

/** Sees to it at once, and from now on, whatever comes and goes. */
export function keepArranged(page: Document): void {
  if (watching?.page === page) return watching.look()
  const again = (): void => arrange(page)
  const view = page.defaultView ?? window
  const sizes = new ResizeObserver(again)
  const hosts = (): void => {
    for (const host of page.querySelectorAll(`[data-intavo-touchpoint=button],${OVER}`)) {
      for (const one of [inside(host, '.card'), inside(host, '.face')]) if (one) sizes.observe(one)
    }
    again()
  }
  watching = { page, look: hosts }
  let timer = 0
  const soon = (): void => {
    timer ||= view.setTimeout(() => {
      timer = 0
      hosts()
    }, TOGETHER)
  }
  new MutationObserver(soon).observe(page.documentElement, {
    childList: true,
    attributes: true,
    attributeFilter: ['inert'],
    subtree: true,
  })
  view.addEventListener('resize', again)
  hosts()
}
