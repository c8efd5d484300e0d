import type { Entry } from './plan'

export const NEXT_AFTER = 3000

/** Interrupting touchpoints come one at a time, in the owner's order, 3 s after the one before has gone. */
export class Turns {
  #queue: Entry[] = []
  #timer = 0
  #onScreen = false

  #show: (entry: Entry) => Promise<boolean>
  #held: (() => unknown) | undefined

  /** `held`: something of the site's own goes first. */
  constructor(show: (entry: Entry) => Promise<boolean>, held?: () => unknown) {
    this.#show = show
    this.#held = held
  }

  ready(entry: Entry): void {
    this.#queue.push(entry)
    this.#queue.sort((a, b) => a.order - b.order)
    if (!this.#onScreen && !this.#timer) void this.#next()
  }

  async #next(): Promise<void> {
    this.#timer = 0
    if (this.#queue.length && this.#held?.()) {
      this.#timer = +setTimeout(() => void this.#next(), 500)
      return
    }
    const entry = this.#queue.shift()
    if (!entry) return
    this.#onScreen = true
    if (await this.#show(entry).catch(() => false)) return
    this.#onScreen = false
    await this.#next()
  }

  taken(): void {
    this.#onScreen = true
    clearTimeout(this.#timer)
    this.#timer = 0
  }

  gone(): void {
    this.#onScreen = false
    clearTimeout(this.#timer)
    this.#timer = +setTimeout(() => void this.#next(), NEXT_AFTER)
  }

  /** The queue ends with the page. */
  clear(): void {
    this.#queue = []
  }
}
