import { instant, written } from './clean'
import { memoryOf, Store } from './memory'
import { special, watch } from './moments'
import { Net } from './net'
import type { Outside } from './outside'
import { slots, watchAddress, watchPage, whenSeen } from './page'
import { device, type Entry, type Plan } from './plan'
import { learn, type Drawing, type Mode, type Sent, type Values, type Ways } from './render'
import { kept, ShownTouchpoint } from './shown'
import { Turns } from './turns'
import { Visit, type Known } from './visit'
import type { App, More, Shown } from './world'

type Happening = 'seen' | 'answered' | 'goal' | 'closed'
type Listener = (detail: object) => void
type Queue = 'interrupting' | 'bar'

export interface Options {
  base: string
  key: string
  hosted?: string | undefined
}

/** Whatever goes wrong in it goes wrong in silence. */
export const quietly = (work: Promise<unknown>): void => void work.catch(() => undefined)

interface OnScreen {
  shown: Shown
  unsee: () => void
}

/** The script at work on one page. */
export class RunningApp implements App {
  readonly base: string
  /** The short name of the touchpoint whose own page this is. */
  readonly hosted: string | undefined
  readonly store: Store
  readonly net: Net
  readonly visit: Visit
  #turns: Record<Queue, Turns>
  entries: Entry[] = []
  /** The slots that the last plan was asked for. */
  asked: string[] = []
  ways?: Ways
  /** How to stop watching, by touchpoint; the moments that are watched are its key's rest. */
  #watched = new Map<string, { moments: string; stop: () => void }>()
  #pageBegan = 0
  #begun = false
  /** Opened by a click before there was anything to open it with. */
  #wanted = ''
  /** Everything that is drawn, in the page's own places too. */
  drawn = new Set<Drawing>()
  onScreen = new Map<string, OnScreen>()
  #listeners: [string, Listener][] = []
  #moreComes: Promise<unknown> | undefined
  #code: More | undefined
  #giveWay = ''

  constructor(
    options: Options,
    readonly outside: Outside,
  ) {
    this.hosted = options.hosted
    this.base = options.base
    this.store = new Store(`intavo.${options.key}`, outside)
    const secret = (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl === true
    this.visit = new Visit(this.store, secret)
    this.net = new Net(this.store)
    this.net.whenSent = (body, sent) => this.#sentLater(body, sent)
    const turns = (held?: () => unknown): Turns => new Turns((entry) => this.#comesByItself(entry), held)
    // A dialog that does not say that it is modal goes first where it is what one looks at.
    const held = (): unknown =>
      document.elementFromPoint(innerWidth / 2, innerHeight / 2)?.closest('[role$=dialog]') ||
      [...document.querySelectorAll(this.#giveWay)].some((one) =>
        one.checkVisibility?.({ visibilityProperty: true }),
      )
    this.#turns = { interrupting: turns(held), bar: turns() }
  }

  async start(): Promise<void> {
    quietly(this.net.resend())
    // A hosted page is drawn by the rest of the code.
    if (this.hosted) return void this.rest()
    watchAddress(() => quietly(this.#page()))
    if (/^#intavo[-_](as|style)[=_]/.test(location.hash) || (this.store.works && sessionStorage.intavoAs))
      await this.rest()
    await this.#page()
    this.#begun = true
    watchPage(() => this.#tend())
    // What was being filled in when the page was loaded anew comes back with what was typed.
    const asked = this.#wanted || /^#intavo[-=]([\w-]+)$/.exec(location.hash)?.[1] || this.store.typing()
    if (asked) await this.open(asked)
  }

  /** A new page: what was waiting on the one before is over. */
  async #page(): Promise<void> {
    this.#watched.forEach((one) => one.stop())
    this.#watched.clear()
    this.#pageBegan = performance.now()
    for (const one of Object.values(this.#turns)) one.clear()
    this.visit.page()
    this.visit.found = { kinds: [], signed_in: false }
    let plan = await this.ask()
    if (plan?.wants) {
      // Where the second file hangs, the plan is followed without what the rules want to know of the page.
      const code = await Promise.race([this.rest(), new Promise<undefined>((go) => setTimeout(go, 4000))])
      this.visit.found = code?.readPage(plan.wants) ?? this.visit.found
      if (this.visit.found.kinds.length || this.visit.found.signed_in) plan = await this.ask()
    }
    if (plan) await this.#follow(plan)
  }

  /** What the plan says holds from now on; what is watched already goes on being watched. */
  async #follow(plan: Plan): Promise<void> {
    this.#giveWay = plan.give_way_to.join()
    this.entries = plan.touchpoints
    this.#dropOthers()
    for (const { id } of this.entries) this.#planned.set(id, this.#recall(id))
    this.#tend()
    const wanted = new Map(this.entries.map((entry) => [entry.id, written(entry.moments)]))
    for (const [id, { moments, stop }] of this.#watched) {
      if (wanted.get(id) === moments) continue
      stop()
      this.#watched.delete(id)
    }
    for (const entry of this.entries) {
      if (!entry.moments.length || this.#watched.has(entry.id)) continue
      if (!entry.moments.flat().some(special) || this.#code) this.#watch(entry)
      // Whatever becomes of the second file, the others do not wait for it.
      else quietly(this.rest().then((code) => code && this.entries.includes(entry) && this.#watch(entry)))
    }
  }

  /** Slots are filled, and what of ours went with a piece of the page comes back. */
  #tend(): void {
    const lost = [...this.onScreen.values()].some(({ shown }) => !shown.drawing.host.isConnected)
    if (lost || this.#code || slots().length) quietly(this.rest().then((code) => code?.tend(this)))
  }

  #watch(entry: Entry): void {
    if (this.#watched.has(entry.id)) return
    const stop = watch(entry.moments, () => this.ready(entry), this.#code?.watchOne, this.#pageBegan)
    this.#watched.set(entry.id, { moments: written(entry.moments), stop })
  }

  /** What never waits goes with the page it was on; on a single-page site that is here and now. */
  #dropOthers(): void {
    for (const [id, { shown }] of this.onScreen) {
      if (shown.entry.queue === 'none' && !this.entries.some((one) => one.id === id)) this.#takeAway(id)
    }
  }

  ready(entry: Entry): void {
    if (entry.queue === 'none') quietly(this.#comesByItself(entry))
    else this.#turns[entry.queue].ready(entry)
  }

  async ask(open?: string): Promise<Plan | null> {
    this.asked = slots()
    const post = (): Promise<Response> =>
      this.outside.post(
        'plan',
        written({ ...this.visit.describe(this.store.read(), open), slots: this.asked }),
      )
    try {
      let answer = await post()
      if (answer.status === 422) {
        const { errors } = (await answer.json()) as { errors: { field: string }[] }
        ;(await this.rest())?.unlearn(this, errors)
        answer = await post()
      }
      if (!answer.ok) return null
      const plan = (await answer.json()) as Plan
      this.visit.heard(plan)
      this.ways = plan.channels
      return plan
    } catch {
      return null
    }
  }

  /** Its turn has come: unless another tab has changed what is remembered, or the plan has run out. */
  async #comesByItself(entry: Entry): Promise<boolean> {
    // Since then it may have come, or the plan may have left it out.
    if (this.onScreen.has(entry.id) || !this.entries.some((one) => one.id === entry.id)) return false
    let current: Entry | undefined = entry
    const unchanged = this.#recall(entry.id) === this.#planned.get(entry.id)
    if (!unchanged || instant(this.visit.now()) > instant(entry.valid_until)) {
      const plan = await this.ask()
      current = plan?.touchpoints.find((one) => one.id === entry.id && one.moments.length > 0)
    }
    if (!current) return false
    if (current.stance === 'in-page') return !!(await (await this.rest())?.inPlace(this, current))
    await this.put(current, 'live')
    if (current.queue === 'interrupting') this.store.change((memory) => memory.interruptions++)
    return true
  }

  /** What was remembered of each touchpoint when the plan was made. */
  #planned = new Map<string, string>()

  #recall(id: string): string {
    const { touchpoints, interruptions } = this.store.read()
    return written([touchpoints[id], interruptions])
  }

  /** Outside of the body, whose rules, movements and changes are the page's own. */
  async put(entry: Entry, mode: Mode, place: Element = document.documentElement): Promise<void> {
    // Without the second file it would stand there naked.
    if (entry.needs_more && !(await this.rest())) return
    // Called for twice at once (by itself and by a click), it stands there once.
    if (mode === 'live' && this.onScreen.has(entry.id)) return
    const shown = new ShownTouchpoint(this, entry, mode)
    const { drawing } = shown
    this.drawn.add(drawing)
    // It is shown only once it can be closed.
    const unsee = whenSeen(drawing.card.hidden ? drawing.host : drawing.card, () =>
      this.happened('seen', entry),
    )
    if (mode === 'live') this.onScreen.set(entry.id, { shown, unsee })
    drawing.show(place)
    if (mode !== 'live') return
    if (entry.queue !== 'none') this.#turns[entry.queue].taken()
    this.#remember(entry, (memory) => {
      memory.shown += 1
      memory.last_shown = this.visit.now()
    })
  }

  /**
   * What the loader does not carry is fetched once, when something wants it; nothing where it does not come.
   */
  async rest(): Promise<More | undefined> {
    // Unlike an element, this holds up nothing of what the page does once it is loaded.
    await (this.#moreComes ??= import(/* @vite-ignore */ `${this.base}/static/touch/more.js`).catch(
      () => undefined,
    ))
    return this.#code
  }

  /** Called by the second file once it is here. */
  more(more: More): void {
    learn(more)
    this.#code = more
    more.begin(this)
  }

  #sentLater(body: { touchpoint: string }, sent: Sent): void {
    const shown = kept.get(body.touchpoint)
    const entry = shown?.entry ?? this.entries.find((one) => one.id === body.touchpoint)
    if (entry && sent.kind === 'taken') this.answered(entry)
    kept.delete(body.touchpoint)
    const drawing = shown?.drawing
    if (drawing?.host.isConnected) drawing.settle(sent)
  }

  answered(entry: Entry, values?: Values, tags: string[] = []): void {
    this.store.change((memory) => (memory.tags = [...new Set([...memory.tags, ...tags])]))
    this.#remember(entry, (memory) => (memory.answered = this.visit.now()))
    const name = values?.answers['name']
    if (name) this.store.change((memory) => (memory.first_name = name.split(/\s+/)[0] ?? ''))
    if (entry.document.purpose === 'sign-up') this.store.change((memory) => (memory.on_list = true))
    this.#tell('answered', entry)
    this.happened('goal', entry)
  }

  #remember(entry: Entry, edit: (memory: ReturnType<typeof memoryOf>) => void): void {
    this.store.change((memory) => edit(memoryOf(memory, entry.id, entry.generation)))
  }

  happened(what: string, entry: Entry, channel?: string): void {
    if (what === 'seen' || what === 'goal') this.#tell(what, entry)
    if (this.visit.secret) return
    this.net.beat({
      touchpoint: entry.id,
      revision: entry.revision,
      what,
      channel,
      page: { url: location.href },
      device: device(),
      at: this.visit.now(),
    })
  }

  #tell(what: Happening, entry: Entry): void {
    const detail = { touchpoint: entry.slug, id: entry.id }
    document.dispatchEvent(new CustomEvent(`intavo:${what}`, { detail }))
    for (const [name, listener] of this.#listeners) if (name === what) listener(detail)
  }

  #takeAway(id: string): Entry | null {
    const found = this.onScreen.get(id)
    if (!found) return null
    this.onScreen.delete(id)
    found.unsee()
    found.shown.drawing.remove()
    this.drawn.delete(found.shown.drawing)
    return found.shown.entry
  }

  #standing(queue: string): Entry | undefined {
    return [...this.onScreen.values()].map((one) => one.shown.entry).find((entry) => entry.queue === queue)
  }

  /** The visitor has closed it (without an entry: what interrupts just now, or else the bar). */
  close(wanted?: Entry): void {
    const one = wanted ?? this.#standing('interrupting') ?? this.#standing('bar')
    const entry = one && this.#takeAway(one.id)
    if (!entry) return
    this.store.keepTyped(entry.id, null)
    this.#remember(entry, (memory) => (memory.last_closed = this.visit.now()))
    this.happened('closed', entry)
    this.#tell('closed', entry)
    if (entry.queue !== 'none') this.#turns[entry.queue].gone()
  }

  /** Opened by the visitor's own click: at once, whatever its sentence; the one on screen gives way. */
  async open(slug: string): Promise<boolean> {
    const entry =
      this.entries.find((one) => one.slug === slug) ??
      (await this.ask(slug))?.touchpoints.find((one) => one.slug === slug)
    if (!entry) return false
    const standing = this.onScreen.get(entry.id)?.shown.drawing
    if (standing?.unfold(true)) return true
    const before = entry.queue === 'interrupting' ? this.#standing('interrupting') : entry
    if (before) this.#takeAway(before.id)
    await this.put(entry, 'live')
    this.onScreen.get(entry.id)?.shown.drawing.unfold(true)
    this.happened('opened', entry)
    return true
  }

  on(event: string, listener: Listener): void {
    this.#listeners.push([event, listener])
  }

  tellVisitor(known: Known): void {
    const { known: before } = this.visit
    const now = { ...before, ...known }
    if (written(now) === written(before)) return
    this.visit.known = now
    if (this.#begun) quietly(this.#askAgain(now.first_name !== before.first_name))
  }

  /** The plan for what is known now. */
  async #askAgain(renamed: boolean): Promise<void> {
    if (renamed) this.drawn.forEach((one) => one.again())
    const plan = await this.ask()
    if (plan) await this.#follow(plan)
  }

  clickedLink(event: Event): void {
    const target =
      event.target instanceof Element
        ? event.target.closest('[data-intavo-open],a[href^="#intavo="],a[href^="#intavo-"]')
        : null
    const slug =
      target?.getAttribute('data-intavo-open') ?? target?.getAttribute('href')?.slice('#intavo='.length)
    if (!slug) return
    event.preventDefault()
    if (this.#begun) quietly(this.open(slug))
    else this.#wanted = slug
  }
}
