import { App } from './app'
import type { More } from './render/parts'
import type { Known } from './visit'

/** The one global. */
interface Intavo {
  open(slug: string): void
  close(): void
  visitor(known: Known): void
  on(event: string, listener: (detail: object) => void): void
  consent(given: boolean): void
  /** For the second file, which brings the parts that the first does not carry. */
  $more(more: More): void
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

function begin(): void {
  const script = document.currentScript as HTMLScriptElement | null
  const found = script && /^(.*)\/e\/([\w-]+)\.js/.exec(script.src)
  // An element of the page may have this id.
  if (!script || !found || window.intavo?.$more) return
  const app = new App({ base: found[1] ?? '', key: found[2] ?? '', hosted: script.dataset.hosted ?? null, nonce: script.nonce ?? '' })
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
    consent: (given) => guarded(() => given && run()),
  }
  if (script.dataset.consent !== 'wait') run()
}

guarded(begin)
