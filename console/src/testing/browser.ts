/** What a browser has and jsdom has not; nothing is laid out there, so nothing of it says anything of places. */
class Watching {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
  takeRecords(): [] {
    return []
  }
}

Object.assign(window, {
  ResizeObserver: Watching,
  IntersectionObserver: Watching,
  PerformanceObserver: Watching,
})
const matchMedia = (media: string) =>
  ({
    matches: false,
    media,
    addEventListener() {},
    removeEventListener() {},
    addListener() {},
    removeListener() {},
  }) as unknown as MediaQueryList
window.matchMedia = matchMedia
// A frame has a window of its own, of which the same holds.
const frame = Object.getOwnPropertyDescriptor(HTMLIFrameElement.prototype, 'contentDocument')!
Object.defineProperty(HTMLIFrameElement.prototype, 'contentDocument', {
  get(this: HTMLIFrameElement) {
    const inner = frame.get!.call(this) as Document | null
    if (inner?.defaultView) Object.assign(inner.defaultView, { matchMedia, ResizeObserver: Watching })
    return inner
  },
})
Object.assign(window, {
  CSS: { escape: (text: string) => text.replace(/[^\w-]/g, '\\$&'), supports: () => false },
})
window.scrollTo = () => {}
Element.prototype.scrollIntoView = () => {}
Element.prototype.scrollTo = () => {}
Element.prototype.getAnimations = () => []
Element.prototype.setPointerCapture = () => {}
Element.prototype.releasePointerCapture = () => {}
Range.prototype.getBoundingClientRect = () => new DOMRect()
Range.prototype.getClientRects = () => [] as unknown as DOMRectList
document.elementFromPoint = () => null
HTMLDialogElement.prototype.showModal = function show() {
  this.open = true
}
HTMLDialogElement.prototype.close = function close() {
  this.open = false
}
document.cookie = 'csrftoken=for-the-tests'

/** Node's own take whole addresses alone; a page's take what stands behind its host as well. */
const whole = (input: RequestInfo | URL) =>
  typeof input === 'string' ? new URL(input, location.href) : input
/** The client keeps the `fetch` that is there when it is made; which one that asks is said here. */
const world = globalThis as typeof globalThis & { network?: { fetch: typeof fetch } }
if (!world.network) {
  const network = { fetch: globalThis.fetch }
  world.network = network
  globalThis.fetch = (input, init) => network.fetch(whole(input as RequestInfo | URL), init)
  const NodeRequest = globalThis.Request
  globalThis.Request = class extends NodeRequest {
    constructor(input: RequestInfo | URL, init?: RequestInit) {
      super(whole(input), init)
    }
  }
}
export const network = world.network
