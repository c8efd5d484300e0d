import { instant, iso } from './clean'
import type { Page, Sender, Visit as Asked } from './generated/wire'
import { device, type Plan } from './plan'
import type { Remembered, Store } from './memory'

/** What the owner's script may say of the visitor. */
export interface Known {
  signed_in?: boolean
  first_name?: string
  email_known?: boolean
}

/** The visit as the server is told of it; times are the server's, by what it last said. */
export class Visit {
  #said = 0
  #saidAt = 0
  known: Known = {}
  /** What the page says of itself, as far as the rules want to know it. */
  found: { kinds: string[]; signed_in: boolean } = { kinds: [], signed_in: false }

  /** What of the page the server did not take. */
  refused: string[] = []

  #store: Store

  constructor(
    store: Store,
    readonly secret: boolean,
  ) {
    this.#store = store
  }

  /** The server's time now, as an ISO text. */
  now(): string {
    return iso(this.time())
  }

  /** The same in milliseconds. */
  time(): number {
    return this.#said
      ? this.#said + performance.now() - this.#saidAt
      : this.#store.outside.clock() + this.#store.read().skew
  }

  /** Count a page; a visit ends after so many minutes without one. */
  page(): void {
    this.#store.change((memory) => {
      const at = this.time()
      if (!memory.last_page || at - memory.last_page > memory.visit_minutes * 60000) {
        memory.visits += 1
        memory.visit_started = iso(at)
        memory.pages_this_visit = memory.interruptions = 0
        memory.first_page = location.href
        memory.arrival = { url: location.href, referrer: document.referrer }
      }
      memory.last_page = at
      memory.pages_ever += 1
      memory.pages_this_visit += 1
    })
  }

  /** Set the clock by a plan. */
  heard(plan: Plan): void {
    this.#said = instant(plan.now)
    this.#saidAt = performance.now()
    this.#store.change((memory) => {
      memory.skew = this.#said - this.#store.outside.clock()
      memory.last_page = this.#said
      memory.visit_minutes = plan.visit_minutes
    })
  }

  describe(memory: Remembered, open?: string): Asked {
    return {
      page: this.place(),
      device: device(),
      visitor: {
        ...memory,
        // What is no business of the plan's is not written.
        ...{ memos: undefined, waiting: undefined, touchpoints: undefined, first_name: undefined },
        ...this.sender(memory),
        visit_started: memory.visit_started || null,
        on_list: memory.on_list || !!this.known.email_known,
      },
      memory: memory.touchpoints,
      storage: this.#store.works,
      open,
    }
  }

  place(): Page {
    const place: Page = {
      url: location.href,
      title: document.title,
      referrer: document.referrer,
      kinds: this.found.kinds,
      signed_in: this.known.signed_in ?? this.found.signed_in,
    }
    for (const name of this.refused) Reflect.deleteProperty(place, name)
    return place
  }

  sender(memory: Remembered) {
    return {
      id: this.secret ? null : memory.id,
      language: navigator.language,
      utc_offset: -new Date().getTimezoneOffset(),
      visits: memory.visits,
    } satisfies Sender
  }
}
