import { read, written } from './clean'
import { randomId, type Store } from './memory'
import type { Problem, SaidBeat, Sent as Sending, Taken } from './generated/wire'
import type { Sent } from './render'

const KEPT_FOR = 7 * 24 * 3600 * 1000
const PAUSES = [2000, 5000, 15000, 30000]
const LONGEST = 60000
/**
 * Milliseconds after which they are told that it is kept and sent later; then it takes the time that it
 * takes.
 */
const LONGEST_ANSWER = 4000

export class Net {
  #retry = 0
  #timer = 0
  #beats: SaidBeat[] = []
  #beatTimer = 0

  #store: Store

  constructor(store: Store) {
    this.#store = store
    addEventListener('pagehide', () => this.#flush(true))
    addEventListener('online', () => this.resend())
  }

  /** Keep it first, then send it: what is not acknowledged is sent again, by this page or a later one. */
  async submit(body: Sending): Promise<Sent> {
    const text = written(body)
    this.#store.change((memory) => memory.waiting.push({ body: text, since: this.#store.outside.clock() }))
    const sent = await this.#trySend(text, AbortSignal.timeout?.(LONGEST_ANSWER))
    if (sent.kind === 'kept') this.#later()
    return sent
  }

  async #trySend(text: string, signal?: AbortSignal): Promise<Sent> {
    try {
      const answer = await this.#store.outside.post('intake', text, signal)
      if (answer.status >= 500 || answer.status === 429) return { kind: 'kept' }
      const said: unknown = await answer.json()
      this.#forget(text)
      if (answer.ok) return { kind: 'taken', ...(said as Taken) }
      const { title, errors } = said as Problem
      return { kind: 'mend', errors: errors ?? [{ field: '', message: title }] }
    } catch {
      return { kind: 'kept' }
    }
  }

  #forget(text: string): void {
    const { id } = read(text) as Sending
    this.#store.change((memory) => {
      memory.waiting = memory.waiting.filter((one) => (read(one.body) as Sending).id !== id)
    })
  }

  /** Called for each kept one that has gone through later. */
  whenSent: (body: Sending, sent: Sent) => void = () => undefined

  #later(): void {
    clearTimeout(this.#timer)
    this.#timer = +setTimeout(() => void this.resend(), PAUSES[this.#retry++] ?? LONGEST)
  }

  async resend(): Promise<void> {
    let left = false
    for (const one of this.#store.read().waiting) {
      if (this.#store.outside.clock() - one.since > KEPT_FOR) {
        this.#forget(one.body)
        continue
      }
      const sent = await this.#trySend(one.body)
      if (sent.kind === 'kept') left = true
      else this.whenSent(read(one.body) as Sending, sent)
    }
    if (left) this.#later()
    else this.#retry = 0
  }

  beat(beat: Omit<SaidBeat, 'id'>): void {
    this.#beats.push({ id: randomId(), variant: null, ...beat })
    this.#beatTimer ||= +setTimeout(() => this.#flush(false), 1500)
  }

  #flush(leaving: boolean): void {
    clearTimeout(this.#beatTimer)
    this.#beatTimer = 0
    if (!this.#beats.length) return
    const body = written(this.#beats)
    this.#beats = []
    if (leaving) this.#store.outside.leave('beats', body)
    else this.#store.outside.post('beats', body).catch(() => undefined)
  }
}
