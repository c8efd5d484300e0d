import { written } from './clean'
import { randomId } from './memory'
import { device, type Entry } from './plan'
import {
  draw,
  type Drawing,
  type Actions,
  type Around,
  type Mode,
  type Sent,
  type Typed,
  type Values,
} from './render'
import type { Shown, World } from './world'

/** One touchpoint drawn on the page, with everything that can be done in it. */
export class ShownTouchpoint implements Shown {
  readonly drawing: Drawing
  #opened = performance.now()
  /** What was sent last, for a correction of it. */
  last = { id: '', step: '', values: { answers: {}, consents: {} } as Values }
  #work: Promise<string> | null = null

  #world: World

  constructor(
    world: World,
    readonly entry: Entry,
    readonly mode: Mode,
  ) {
    this.#world = world
    this.drawing = draw(document, entry.document, mode, this.#actions(), this.#around())
  }

  #around(): Around {
    const { entry } = this
    const world = this.#world
    const key = (name: string): string => `${entry.id}.${name}`
    return {
      base: world.base,
      get firstName() {
        return world.visit.known.first_name ?? world.store.read().first_name
      },
      now: () => world.visit.time(),
      typed: world.store.typed(entry.id),
      keep: (typed: Typed | null) => world.store.keepTyped(entry.id, typed, entry.slug),
      memo: (name, value) => {
        if (value !== undefined) world.store.change((memory) => (memory.memos[key(name)] = value))
        return world.store.read().memos[key(name)] ?? null
      },
      ways: () => world.ways,
      entry,
    }
  }

  #actions(): Actions {
    const { entry } = this
    const world = this.#world
    return {
      send: (step, values, trap) => this.submit(step, values, trap),
      more: () => world.rest(),
      offer: (email) => void world.rest().then((code) => code?.offer(this, email)),
      close: () => (this.mode === 'live' ? world.close(entry) : undefined),
      started: () => {
        world.happened('started', entry)
        if (entry.document.then.work) this.#work ??= this.#doWork()
      },
      clicked: (channel) => world.happened('clicked', entry, channel),
      goal: () => world.happened('goal', entry),
      over: () => world.happened('over', entry),
      open: (slug) => world.open(slug),
      post: (path, body) => world.outside.post(path, written(body)),
      extras: async (code) => (await world.rest())?.extras(world, entry, code) ?? {},
    }
  }

  /** The piece of work is begun with the first letter, so that it is done when they send. */
  async #doWork(): Promise<string> {
    return (await this.#world.rest())?.solve(this.#world, this.entry) ?? ''
  }

  async submit(step: string, values: Values, trap: string, corrects?: string): Promise<Sent> {
    const { entry } = this
    const world = this.#world
    const id = randomId()
    this.last = { id, step, values }
    if (entry.document.then.work) this.#work ??= this.#doWork()
    const work = this.#work ? await this.#work : ''
    this.#work = null
    const body = {
      id,
      touchpoint: entry.id,
      revision: entry.revision,
      variant: entry.variant,
      step,
      answers: values.answers,
      consents: values.consents,
      page: world.visit.place(),
      device: device(),
      visitor: world.visit.sender(world.store.read()),
      elapsed_ms: Math.round(performance.now() - this.#opened),
      ...(corrects ? { corrects } : {}),
      ...(trap ? { trap } : {}),
      ...(work ? { work } : {}),
    }
    const sent = await world.net.submit(body)
    if (sent.kind === 'taken') world.answered(entry, values, sent.tags)
    if (sent.kind === 'kept') kept.set(entry.id, this)
    return sent
  }
}

/** Those whose answer is kept to be sent later, by the touchpoint's id. */
export const kept = new Map<string, Shown>()
