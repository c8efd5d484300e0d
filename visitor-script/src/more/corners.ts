/** Buttons that share a corner stand above one another, above a bar, and never peek out behind a card. */

const GAP = 10
const OVER = '[data-intavo-touchpoint=card],[data-intavo-touchpoint=bar]'

const inside = (host: Element, selector: string): HTMLElement | null => host.shadowRoot?.querySelector<HTMLElement>(selector) ?? null
const meets = (one: DOMRect, other: DOMRect): boolean =>
  one.left < other.right && other.left < one.right && one.top < other.bottom && other.top < one.bottom

/** Gives every button of a page its place. */
export function arrange(page: Document): void {
  const corners = new Map<string, number>()
  const cards = [...page.querySelectorAll<HTMLElement>(OVER)].filter((one) => !one.inert).flatMap((one) => inside(one, '.card') ?? [])
  for (const host of page.querySelectorAll('[data-intavo-touchpoint=button]')) {
    const dock = inside(host, '.dock')
    const face = inside(host, '.face')
    if (!dock || !face) continue
    const place = dock.dataset.place ?? ''
    const bar = cards
      .filter((one) => one.dataset.stance === 'bar' && place.startsWith(one.dataset.place ?? ''))
      .map((one) => one.offsetHeight)
    const from = corners.get(place) ?? Math.max(0, ...bar)
    dock.style.setProperty(/^top/.test(place) ? '--above' : '--below', `${from}px`)
    corners.set(place, from + face.offsetHeight + GAP)
    const open = !inside(host, '.card')?.hidden
    dock.style.zIndex = open ? '2147483001' : ''
    const box = face.getBoundingClientRect()
    const hidden = !open && cards.some((one) => one.dataset.stance !== 'bar' && meets(box, one.getBoundingClientRect()))
    dock.style.visibility = hidden ? 'hidden' : ''
  }
}

let watching: Document | null = null

/** Sees to it from now on, whatever comes and goes. */
export function keepArranged(page: Document): void {
  if (watching === page) return
  watching = page
  const again = (): void => arrange(page)
  const view = page.defaultView ?? window
  const sizes = new ResizeObserver(again)
  const hosts = (): void => {
    for (const host of page.querySelectorAll(`[data-intavo-touchpoint=button],${OVER}`)) {
      for (const one of [inside(host, '.card'), inside(host, '.face')]) if (one) sizes.observe(one)
    }
    again()
  }
  new MutationObserver(hosts).observe(page.body, { childList: true, attributes: true, attributeFilter: ['inert'], subtree: true })
  view.addEventListener('resize', again)
  hosts()
}
