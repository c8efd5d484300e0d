import { read, written } from './clean'
import type { Outside } from './outside'
import type { Typed } from './render'

/** What is remembered of this visitor on this site, in the site's own storage only. */
export interface TouchpointMemory {
  generation: number
  shown: number
  last_shown: string | null
  last_closed: string | null
  answered: string | null
}

export interface Waiting {
  body: string
  since: number
}

export interface Remembered {
  id: string
  visits: number
  visit_started: string
  last_page: number
  /** Server time less this browser's time, in milliseconds. */
  skew: number
  visit_minutes: number
  pages_ever: number
  pages_this_visit: number
  /** What has come by itself over the page in this visit. */
  interruptions: number
  first_page: string
  arrival: { url: string; referrer: string }
  on_list: boolean
  tags: string[]
  first_name: string
  /** Words kept for touchpoints, such as when a countdown began. */
  memos: Record<string, string>
  touchpoints: Record<string, TouchpointMemory>
  waiting: Waiting[]
}

export function randomId(): string {
  let id = ''
  for (const byte of crypto.getRandomValues(new Uint8Array(16))) id += byte.toString(16).padStart(2, '0')
  return id
}

export function fresh(): Remembered {
  return {
    id: randomId(),
    visits: 0,
    visit_started: '',
    last_page: 0,
    skew: 0,
    visit_minutes: 30,
    pages_ever: 0,
    pages_this_visit: 0,
    interruptions: 0,
    first_page: '',
    arrival: { url: '', referrer: '' },
    on_list: false,
    tags: [],
    first_name: '',
    memos: {},
    touchpoints: {},
    waiting: [],
  }
}

export class Store {
  /** False where the browser refuses to remember: then it holds until the page is loaded anew. */
  readonly works: boolean
  #held: Remembered | undefined

  #key: string

  constructor(
    key: string,
    readonly outside: Outside,
  ) {
    this.#key = key
    this.works = this.#tryOut()
  }

  #tryOut(): boolean {
    try {
      const shelf = this.outside.shelf()
      shelf.setItem(`${this.#key}.try`, '1')
      shelf.removeItem(`${this.#key}.try`)
      return true
    } catch {
      return false
    }
  }

  /** Read anew each time: another tab may have written. */
  read(): Remembered {
    if (!this.works) return (this.#held ??= fresh())
    try {
      return { ...fresh(), ...read(this.outside.shelf().getItem(this.#key) ?? 'null') }
    } catch {
      return fresh()
    }
  }

  /** What is being typed lasts as long as the tab: kept apart from what is remembered. */
  keepTyped(id: string, typed: Typed | null, slug = ''): void {
    try {
      const all = this.#allTyped()
      // What is undefined is not written.
      const next = { ...all, [id]: typed ? { ...typed, slug } : undefined }
      sessionStorage.setItem(`${this.#key}.typed`, written(next))
    } catch {
      // Not kept, then: the page goes on as before.
    }
  }

  #allTyped(): Record<string, Typed & { slug: string }> {
    try {
      // Nothing that was kept is read as null.
      return (read(sessionStorage.getItem(`${this.#key}.typed`) as string) ?? {}) as Record<
        string,
        Typed & { slug: string }
      >
    } catch {
      return {}
    }
  }

  typed(id: string): Typed | null {
    return this.#allTyped()[id] ?? null
  }

  /** The short name of the touchpoint that was being filled in, if one was. */
  typing(): string | undefined {
    return Object.values(this.#allTyped())[0]?.slug
  }

  change(edit: (memory: Remembered) => void): Remembered {
    const memory = this.read()
    edit(memory)
    try {
      if (this.works) this.outside.shelf().setItem(this.#key, written(memory))
    } catch {
      // Full: going without the newest memory is better than failing on the site's page.
    }
    return memory
  }
}

export function memoryOf(memory: Remembered, id: string, generation: number): TouchpointMemory {
  const known = memory.touchpoints[id]
  if (known && known.generation >= generation) return known
  return (memory.touchpoints[id] = {
    generation,
    shown: 0,
    last_shown: null,
    last_closed: null,
    answered: null,
  })
}
