import type { App } from '../world'
import { read, written } from '../clean'
import type { Taken } from '../render/feature'

interface Body {
  touchpoint: string
  step: string
  revision: number
}

type Told = Pick<Taken, 'says'> & { given?: string | null }

/** What is remembered in a rehearsal lasts as long as its tab, apart from what the site remembers. */
const MEMORY = 'intavoAs.memory'
const shelf = {
  getItem: () => sessionStorage.getItem(MEMORY),
  setItem: (_: string, memory: string) => sessionStorage.setItem(MEMORY, memory),
  removeItem: () => sessionStorage.removeItem(MEMORY),
}

/** What would come next and be said, had it been sent. */
async function taken(app: App, { touchpoint, step, revision }: Body) {
  const asked = app.outside.post('more', written({ touchpoint, revision }))
  const more = await asked
    .then((answer) => answer.json() as Promise<Told>)
    .catch((): Told => ({ says: null }))
  const steps = app.entries.find((one) => one.id === touchpoint)?.document.steps ?? []
  const here = steps.find((one) => one.id === step)
  const button = here?.parts.find((part) => part.kind === 'button' && part.does.action === 'send')
  const next = button?.kind === 'button' ? button.does.next : null
  return {
    next,
    says: more.says ?? null,
    suggest: null,
    code: more.given ?? null,
    file: null,
  } satisfies Omit<Taken, 'kind'>
}

/** A mark that cannot be overlooked, with the way out. */
function mark(): void {
  const host = document.createElement('div')
  host.setAttribute('data-intavo-rehearsal', '')
  const root = host.attachShadow({ mode: 'open' })
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(
    ':host{position:fixed;inset:auto auto 12px 50%;translate:-50%;z-index:2147483600}' +
      'p{margin:0;padding:8px 14px;border-radius:8px;background:#1a2326;color:#fff;font:600 14px/1.4 system-ui,sans-serif;box-shadow:0 4px 18px #0005}' +
      'button{margin-inline-start:10px;padding:4px 10px;border:1px solid #fff;border-radius:6px;background:none;color:inherit;font:inherit;cursor:pointer}',
  )
  root.adoptedStyleSheets = [sheet]
  const words = document.createElement('p')
  words.append('Rehearsal: nothing is counted or sent.')
  const end = document.createElement('button')
  end.textContent = 'End it'
  end.addEventListener('click', () => {
    sessionStorage.removeItem('intavoAs')
    shelf.removeItem()
    location.replace(location.pathname + location.search)
  })
  words.append(end)
  root.append(words)
  document.documentElement.append(host)
}

/**
 * What stands in an address as letters, digits and strokes alone, which any page takes for the name of a
 * place in it.
 */
export const unpacked = (said: string): string => atob(said.replace(/-/g, '+').replace(/_/g, '/'))

/**
 * In a tab that was opened to rehearse, the site behaves as for the visitor of the link, and nothing is
 * counted or kept.
 */
export function begin(app: App): void {
  if (!app.store.works) return
  const [, before, told] = /^#intavo(?:-as=(.+)|_as_([\w-]+))/.exec(location.hash) ?? []
  if (before || told) {
    sessionStorage.intavoAs = before ?? unpacked(told ?? '')
    shelf.removeItem()
    history.replaceState(history.state, '', location.pathname + location.search)
  }
  const token = sessionStorage.intavoAs as string | undefined
  if (!token) return
  const { outside } = app
  const { post } = outside
  outside.shelf = () => shelf
  outside.leave = () => undefined
  outside.post = async (path, body) => {
    const said = read(body) as object
    const asked = (): Promise<Response> => post(path, written({ ...said, rehearsal: token }))
    if (path === 'plan' || path === 'more') return asked()
    return new Response(path === 'intake' ? written(await taken(app, said as Body)) : '{}')
  }
  mark()
}
