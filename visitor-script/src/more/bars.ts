/**
 * Bars: they push the page or lie over it, stay in view as they should, and never hide the page's own
 * navigation.
 */
import type { FullValues } from '../render/types'
import { footOf } from './corners'

const STEP = 12
/** How far below a bar something of the page's own may still be in its way. */
const BESIDE = 40
const TALLEST_HEAD = 240
const COLUMNS = [0.05, 0.3, 0.5, 0.7, 0.95]
const HEADS = 'header,nav,[role=banner],[role=navigation]'

const top = (one: Element): number => one.getBoundingClientRect().top
const wide = (view: Window, one: Element): boolean =>
  one.getBoundingClientRect().width >= 0.6 * view.innerWidth
const tall = (view: Window, one: Element): boolean =>
  one.getBoundingClientRect().height > 0.4 * view.innerHeight

/** What of the page's own is at the top of the screen, down to so many pixels: asked of the page itself. */
function atTheTop(page: Document, view: Window, depth: number): Set<HTMLElement> {
  const found = new Set<HTMLElement>()
  for (const column of COLUMNS) {
    for (let y = 1; y <= depth; y += STEP) {
      for (const hit of page.elementsFromPoint(column * view.innerWidth, y)) {
        for (
          let one: Element | null = hit;
          one && one !== page.documentElement && !found.has(one as HTMLElement);
          one = one.parentElement
        )
          found.add(one as HTMLElement)
      }
    }
  }
  for (const one of found) if (one.closest('[data-intavo-touchpoint]')) found.delete(one)
  return found
}

const positioned = (view: Window, one: Element, how: RegExp): boolean =>
  how.test(view.getComputedStyle(one).position)

/** Where what is at the top of the page ends, for a bar that lies over it. */
function headFoot(page: Document, view: Window): number {
  const heads = [...atTheTop(page, view, BESIDE)].filter(
    (one) =>
      (one.matches(HEADS) || positioned(view, one, /fixed|sticky/)) && wide(view, one) && one !== page.body,
  )
  const boxes = heads.map((one) => one.getBoundingClientRect())
  return Math.max(
    0,
    ...boxes.filter((box) => box.top <= BESIDE && box.height < TALLEST_HEAD).map((box) => box.bottom),
  )
}

/** Sets a value of a style so that it holds; gives back how to set it back. */
function set(element: HTMLElement, name: string, value: string): () => void {
  const { style } = element
  const before = [style.getPropertyValue(name), style.getPropertyPriority(name)] as const
  style.setProperty(name, value, 'important')
  return () => style.setProperty(name, ...before)
}

/** Whether what scrolls is not the page but a large box in it, or nothing may scroll at all. */
function scrollsElsewhere(page: Document, view: Window): boolean {
  const { documentElement: root, body } = page
  const said = view.getComputedStyle(root).overflowY === 'visible' ? body : root
  // What an element says itself is for the moment: something holds the page while it is open.
  if (/hidden|clip/.test(view.getComputedStyle(said).overflowY) && !said.style.overflow) return true
  if (root.scrollHeight > view.innerHeight + 1) return false
  const boxes = [...body.querySelectorAll('*')].filter(
    (one) => one.scrollHeight > one.clientHeight + 1 && tall(view, one) && wide(view, one),
  )
  return boxes.some((one) => /auto|scroll/.test(view.getComputedStyle(one).overflowY))
}

/** Room for the bar at an end of the page; null where that would leave a part of the page out of reach. */
function push(page: Document, end: 'top' | 'bottom', height: number): (() => void) | null {
  const view = page.defaultView ?? window
  const { documentElement: root, body } = page
  if (scrollsElsewhere(page, view)) return null
  const of = end === 'top' ? root : body
  const own = parseFloat(view.getComputedStyle(of).getPropertyValue(`padding-${end}`)) || 0
  const [wasTall, scrolled] = [root.scrollHeight, view.scrollY]
  // What they look at just now stays where it is.
  const still = set(root, 'overflow-anchor', 'none')
  const back = set(of, `padding-${end}`, `${own + height}px`)
  if (end === 'top' && scrolled) view.scrollBy({ top: height, behavior: 'instant' })
  still()
  const undo = (): void => {
    const anchored = set(root, 'overflow-anchor', 'none')
    const down = end === 'top' && view.scrollY
    back()
    if (down) view.scrollBy({ top: -height, behavior: 'instant' })
    anchored()
  }
  // A page that is longer than the screen is longer by as much now, or its last words lie under the bar.
  if (end === 'top' || wasTall <= view.innerHeight || root.scrollHeight >= wasTall + height - 1) return undo
  undo()
  return null
}

/** What stands at the top of the screen and did not go with the page is moved by as much, and back. */
class Moved {
  #held = new Map<HTMLElement, { own: number; stays: boolean; back: () => void }>()
  #view: Window
  #by = NaN

  constructor(readonly page: Document) {
    this.#view = page.defaultView ?? window
  }

  hold(one: HTMLElement, by: number): void {
    const css = this.#view.getComputedStyle(one)
    if (css.position !== 'fixed' && [...this.#held.keys()].some((other) => other.contains(one))) return
    const own = parseFloat(css.top) || 0
    const stays = /fixed|sticky/.test(css.position)
    const moved = set(one, 'top', `${own + by}px`)
    // One that is as high as the screen would end below it.
    const ends = one.getBoundingClientRect().bottom - this.#view.innerHeight
    const within =
      stays && ends > 1 && ends <= by + 1
        ? set(one, 'max-height', `calc(100vh - ${own + by}px)`)
        : () => undefined
    this.#held.set(one, {
      own,
      stays,
      back: () => {
        moved()
        within()
      },
    })
  }

  /** What stays on the screen stands so far below where it would. */
  follow(by: number): void {
    if (by === this.#by) return
    this.#by = by
    for (const [one, { own, stays }] of this.#held)
      if (stays) one.style.setProperty('top', `${own + by}px`, 'important')
  }

  /** What has come to the edge by scrolling goes as far, too. */
  look(by: number): void {
    if (by <= 0) return
    for (const one of atTheTop(this.page, this.#view, by)) {
      if (positioned(this.#view, one, /sticky/) && !this.#held.has(one) && top(one) < by - 1)
        this.hold(one, by)
    }
  }

  back(): void {
    for (const { back } of this.#held.values()) back()
  }
}

/**
 * Pushes the page down, and with it what does not go by itself; null where it cannot be done without harm.
 */
function pushDown(page: Document, view: Window, height: number): { back: () => void; moved: Moved } | null {
  const there = [...atTheTop(page, view, height + BESIDE)]
    .filter(
      (one) =>
        positioned(view, one, /fixed|sticky|absolute/) &&
        !(wide(view, one) && tall(view, one) && one !== page.body),
    )
    .sort((one, other) => (one.compareDocumentPosition(other) & one.DOCUMENT_POSITION_FOLLOWING ? -1 : 1))
    .map((one) => ({ one, was: top(one) }))
  const [body, scrolled] = [top(page.body), view.scrollY]
  const back = push(page, 'top', height)
  if (!back) return null
  const by = height - (view.scrollY - scrolled)
  const moved = new Moved(page)
  // What the page scrolled by is no movement of it.
  for (const { one, was } of there) {
    const went = top(one) - was
    const fixed = positioned(view, one, /fixed|sticky/)
    if (went < (fixed ? height : by) - 1) moved.hold(one, height - (fixed ? Math.max(0, went) : 0))
  }
  const all = (): void => {
    moved.back()
    back()
  }
  if (Math.abs(top(page.body) - body - by) <= 1) return { back: all, moved }
  all()
  return null
}

/** Where a small button of the page's own may stand at the foot of the screen, from either side. */
const CORNERS = [24, 48, 80]

/** What small of the page's own stays at the foot of the screen stands above a bar there, and then back. */
class Lifted {
  #held = new Map<HTMLElement, () => void>()
  #view: Window

  constructor(readonly page: Document) {
    this.#view = page.defaultView ?? window
  }

  /** Looks again, as some come only once the page has been scrolled. */
  look(depth: number, by: number): void {
    const { innerWidth, innerHeight } = this.#view
    const columns = [
      ...CORNERS,
      ...COLUMNS.map((one) => one * innerWidth),
      ...CORNERS.map((one) => innerWidth - one),
    ]
    for (const x of columns) {
      for (let y = innerHeight - 2; y > innerHeight - depth; y -= STEP) {
        for (const hit of this.page.elementsFromPoint(x, y)) {
          if (!hit.closest('[data-intavo-touchpoint],[data-intavo-rehearsal]')) this.#lift(hit, by)
        }
      }
    }
  }

  #lift(hit: Element, by: number): void {
    let one: Element | null = hit
    while (one && !positioned(this.#view, one, /fixed/)) one = one.parentElement
    const thing = one as HTMLElement | null
    if (!thing || this.#held.has(thing) || wide(this.#view, thing) || tall(this.#view, thing)) return
    const was = thing.getBoundingClientRect().bottom
    const own = this.#view.innerHeight - was
    const back = set(thing, 'bottom', `${own + by}px`)
    // One that is held by its top edge stays where the page put it.
    if (thing.getBoundingClientRect().bottom > was - 1) back()
    else this.#held.set(thing, back)
  }

  back(): void {
    for (const back of this.#held.values()) back()
  }
}

/** How often it is looked what of the page's own is where, while it is scrolled. */
const LOOKS = 150

/**
 * Does something now and then while the page is scrolled, and once more when that is over: what asks the page
 * where something is, costs the page its time.
 */
function nowAndThen(view: Window, work: () => void): { scrolled: () => void; end: () => void } {
  let timer = 0
  let again = false
  const look = (): void => {
    again = false
    timer = view.setTimeout(() => {
      timer = 0
      if (again) look()
    }, LOOKS)
    work()
  }
  return {
    // The first turn is followed at once.
    scrolled: () => {
      if (timer) again = true
      else look()
    },
    end: () => view.clearTimeout(timer),
  }
}

/**
 * Puts a bar on the page; gives back how to take it away again without a trace. `lies`: it had to lie over
 * the page.
 */
export function standBar(
  page: Document,
  host: HTMLElement,
  card: HTMLElement,
  look: FullValues,
  lies: () => void,
): () => void {
  const view = page.defaultView ?? window
  const { place, pushes, stays } = look
  const height = card.offsetHeight
  if (place !== 'top') {
    const back = pushes ? push(page, 'bottom', height) : undefined
    if (back === null) lies()
    const lifted = new Lifted(page)
    const above = (): void => {
      const foot = footOf(page)
      host.style.setProperty('--from-bottom', `${foot}px`)
      lifted.look(foot + height, height)
    }
    above()
    const { scrolled, end } = nowAndThen(view, above)
    view.addEventListener('scroll', scrolled, { passive: true })
    return () => {
      view.removeEventListener('scroll', scrolled)
      end()
      lifted.back()
      back?.()
    }
  }
  // First in the order of the page, as it is on the screen.
  const { documentElement: root, body } = page
  if (host.parentNode === root && host.compareDocumentPosition(body) & host.DOCUMENT_POSITION_PRECEDING)
    root.insertBefore(host, body)
  const pushed = pushes ? pushDown(page, view, height) : undefined
  if (pushed === null) lies()
  const came = view.scrollY
  let head = 0
  let stands = NaN
  let by = height
  const follow = (): void => {
    // One that does not stay goes with the page, from where it came.
    const gone = stays ? 0 : Math.min(height + BESIDE, Math.max(0, view.scrollY - came))
    by = Math.max(0, height - gone)
    if (stands !== head - gone) host.style.setProperty('--from-top', `${(stands = head - gone)}px`)
    pushed?.moved.follow(by)
  }
  const ask = (): void => {
    if (!pushed) head = headFoot(page, view)
    follow()
    pushed?.moved.look(by)
  }
  ask()
  const { scrolled, end } = nowAndThen(view, ask)
  const moves = (): void => {
    follow()
    scrolled()
  }
  view.addEventListener('scroll', moves, { passive: true })
  return () => {
    view.removeEventListener('scroll', moves)
    end()
    pushed?.back()
  }
}
