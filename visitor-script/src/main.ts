import { RunningApp } from './app'
import { browser } from './outside'
import { setMarkup } from './render/dom'
import type { Known } from './visit'
import type { More } from './world'

/** The one global. */
interface Intavo {
  open(slug: string): void
  close(): void
  visitor(known: Known): void
  on(event: string, listener: (detail: object) => void): void
  consent(given: boolean): void
  /** For the second file, which brings the parts that the first does not carry. */
  $more(more: More): void
  $key: string
  $markup: typeof setMarkup
}

declare global {
  interface Window {
    intavo?: Intavo
  }
}

/** An error here must never reach the page that this runs on. */
function guarded(work: () => unknown): void {
  try {
    const result = work()
    if (result instanceof Promise) result.catch(() => undefined)
  } catch {
    // Nothing to do: the site goes on without us.
  }
}

const ADDRESS = /^(.*)\/e\/([\w-]+)\.js/

function begin(): void {
  // A module is not told which element it came by.
  const all = [document.currentScript as HTMLScriptElement | null, ...document.querySelectorAll('script')]
  const script = all.find((one) => one && ADDRESS.test(one.src))
  if (!script) return console.warn('Intavo: loaded from elsewhere')
  const [, base, key] = ADDRESS.exec(script.src) as unknown as [string, string, string]
  // An element of the page may have this id.
  if (window.intavo?.$more) {
    if (window.intavo.$key !== key) console.warn('Intavo: loaded twice')
    return
  }
  const app = new RunningApp({ base, key, hosted: script.dataset.hosted }, browser(`${base}/e/${key}`))
  // At once: what is clicked while the rest of the page loads is opened when it has.
  document.addEventListener('click', (event) => guarded(() => app.clickedLink(event)))
  let running = false
  const run = (): void => {
    if (running) return
    running = true
    const start = (): void => guarded(() => app.start())
    if (document.readyState === 'loading') document.addEventListener('DOMContentLoaded', start)
    else start()
  }
  window.intavo = {
    open: (slug) => guarded(() => app.open(slug)),
    close: () => guarded(() => app.close()),
    visitor: (known) => guarded(() => app.tellVisitor(known)),
    on: (event, listener) => guarded(() => app.on(event, (detail) => guarded(() => listener(detail)))),
    $more: (more) => guarded(() => app.more(more)),
    $key: key,
    $markup: setMarkup,
    consent: (given) => guarded(() => given && run()),
  }
  if (script.dataset.consent !== 'wait') run()
}

guarded(begin)
