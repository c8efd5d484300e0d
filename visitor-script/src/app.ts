import { memoryOf, randomId, Store } from './memory'
import { watch } from './moments'
import { Net } from './net'
import { watchAddress, whenSeen } from './page'
import { device, type Entry, type Plan } from './plan'
import { Drawing, type Actions, type Mode, type Sent, type Values } from './render'
import { Turns } from './turns'
import { Visit, type Known } from './visit'

type Happening = 'seen' | 'answered' | 'goal' | 'closed'
type Listener = (detail: object) => void

export interface Options {
  base: string
  key: string
  hosted: string | null
}

/** The script at work on one page. */
export class App {
  private store: Store
  private net: Net
  private visit: Visit
  private turns = new Turns((entry) => this.comesByItself(entry))
  private entries: Entry[] = []
  private stops: (() => void)[] = []
  private open_: { entry: Entry; drawing: Drawing; unsee: () => void } | null = null
  private listeners: [string, Listener][] = []
  private watched = false

  constructor(private options: Options) {
    this.store = new Store(`intavo.${options.key}`)
    const secret = (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl === true
    this.visit = new Visit(this.store, secret)
    this.net = new Net(`${options.base}/e/${options.key}`, this.store)
    this.net.whenSent = (body, sent) => this.sentLater(body, sent)
  }

  async start(): Promise<void> {
    void this.net.resend()
    if (this.options.hosted) return this.hosted(this.options.hosted)
    if (!this.watched) {
      this.watched = true
      watchAddress(() => void this.page())
      document.addEventListener('click', (event) => this.clickedLink(event))
    }
    await this.page()
    const asked = /^#intavo=([\w-]+)$/.exec(location.hash)?.[1]
    if (asked) await this.open(asked)
  }

  /** A new page: what was waiting on the one before is over. */
  private async page(): Promise<void> {
    this.stops.splice(0).forEach((stop) => stop())
    this.turns.clear()
    this.visit.page()
    const plan = await this.ask()
    if (!plan) return
    this.entries = plan.touchpoints
    for (const { id } of this.entries) this.planned.set(id, this.recall(id))
    this.fillSlots()
    for (const entry of this.entries) {
      if (entry.moments.length) this.stops.push(watch(entry.moments, () => this.turns.ready(entry)))
    }
  }

  private async ask(open?: string): Promise<Plan | null> {
    try {
      const answer = await this.net.post('plan', JSON.stringify(this.visit.describe(this.store.read(), open)))
      if (!answer.ok) return null
      const plan = (await answer.json()) as Plan
      this.visit.heard(plan)
      return plan
    } catch {
      return null
    }
  }

  /** Its turn has come: unless another tab has changed what is remembered, or the plan has run out. */
  private async comesByItself(entry: Entry): Promise<boolean> {
    let current: Entry | undefined = entry
    const unchanged = this.recall(entry.id) === this.planned.get(entry.id)
    if (!unchanged || Date.parse(this.visit.now()) > Date.parse(entry.valid_until)) {
      const plan = await this.ask()
      current = plan?.touchpoints.find((one) => one.id === entry.id && one.moments.length > 0)
    }
    if (!current) return false
    this.put(current, 'modal')
    return true
  }

  /** What was remembered of each touchpoint when the plan was made. */
  private planned = new Map<string, string>()

  private recall(id: string): string {
    return JSON.stringify(this.store.read().touchpoints[id] ?? null)
  }

  private put(entry: Entry, mode: Mode, place: Element = document.body): void {
    const drawing: Drawing = new Drawing(
      document,
      entry.document,
      mode,
      this.actionsFor(entry, mode, (): Drawing => drawing),
    )
    drawing.show(place)
    const unsee = whenSeen(drawing.card, () => this.happened('seen', entry))
    if (mode !== 'modal') return
    this.turns.taken()
    this.open_ = { entry, drawing, unsee }
    this.remember(entry, (memory) => {
      memory.shown += 1
      memory.last_shown = this.visit.now()
    })
  }

  private actionsFor(entry: Entry, mode: Mode, drawing: () => Drawing): Actions {
    const opened = performance.now()
    let lastId = ''
    const submit = async (step: string, values: Values, corrects?: string): Promise<Sent> => {
      lastId = randomId()
      const body = {
        id: lastId, touchpoint: entry.id, revision: entry.revision, variant: entry.variant, step,
        answers: values.answers, consents: values.consents, page: this.visit.place(), device: device(),
        visitor: this.visit.sender(this.store.read()), elapsed_ms: Math.round(performance.now() - opened),
        ...(corrects ? { corrects } : {}),
      } // prettier-ignore
      const sent = await this.net.submit(body)
      if (sent.kind === 'taken') this.answered(entry)
      if (sent.kind === 'kept') this.keptFor.set(entry.id, drawing())
      return sent
    }
    let last: { step: string; values: Values } | null = null
    return {
      send: (step, values) => {
        last = { step, values }
        return submit(step, values)
      },
      correct: (email) => {
        if (!last) return Promise.resolve({ kind: 'kept' })
        const field = entry.document.steps.flatMap((step) => step.parts).find((part) => part.kind === 'field' && part.input === 'email')
        const name = field?.kind === 'field' ? field.name : 'email'
        return submit(last.step, { ...last.values, answers: { ...last.values.answers, [name]: email } }, lastId)
      },
      close: () => (mode === 'modal' ? this.close() : undefined),
      started: () => this.happened('started', entry),
      clicked: () => this.happened('clicked', entry),
    }
  }

  private keptFor = new Map<string, Drawing>()

  private sentLater(body: { touchpoint: string }, sent: Sent): void {
    const entry = this.entries.find((one) => one.id === body.touchpoint)
    if (entry && sent.kind === 'taken') this.answered(entry)
    const drawing = this.keptFor.get(body.touchpoint)
    this.keptFor.delete(body.touchpoint)
    if (drawing?.host.isConnected) drawing.settle(sent)
  }

  private answered(entry: Entry): void {
    this.remember(entry, (memory) => (memory.answered = this.visit.now()))
    if (entry.document.purpose === 'sign-up') this.store.change((memory) => (memory.on_list = true))
    this.tell('answered', entry)
    this.happened('goal', entry)
  }

  private remember(entry: Entry, edit: (memory: ReturnType<typeof memoryOf>) => void): void {
    this.store.change((memory) => edit(memoryOf(memory, entry.id, entry.generation)))
  }

  private happened(what: string, entry: Entry): void {
    if (what === 'seen' || what === 'goal') this.tell(what, entry)
    if (this.visit.secret) return
    this.net.beat({
      touchpoint: entry.id,
      revision: entry.revision,
      what,
      page: { url: location.href },
      device: device(),
      at: this.visit.now(),
    })
  }

  private tell(what: Happening, entry: Entry): void {
    const detail = { touchpoint: entry.slug, id: entry.id }
    document.dispatchEvent(new CustomEvent(`intavo:${what}`, { detail }))
    for (const [name, listener] of this.listeners) if (name === what) listener(detail)
  }

  private takeAway(): Entry | null {
    const shown = this.open_
    if (!shown) return null
    this.open_ = null
    shown.unsee()
    shown.drawing.remove()
    return shown.entry
  }

  /** The visitor has closed it. */
  close(): void {
    const entry = this.takeAway()
    if (!entry) return
    this.remember(entry, (memory) => (memory.last_closed = this.visit.now()))
    this.happened('closed', entry)
    this.tell('closed', entry)
    this.turns.gone()
  }

  /** Opened by the visitor's own click: at once, whatever its sentence; the one on screen gives way. */
  async open(slug: string): Promise<boolean> {
    const entry = this.entries.find((one) => one.slug === slug) ?? (await this.ask(slug))?.touchpoints.find((one) => one.slug === slug)
    if (!entry) return false
    this.takeAway()
    this.put(entry, 'modal')
    this.happened('opened', entry)
    return true
  }

  on(event: string, listener: Listener): void {
    this.listeners.push([event, listener])
  }

  tellVisitor(known: Known): void {
    Object.assign(this.visit.known, known)
  }

  private clickedLink(event: Event): void {
    const target = event.target instanceof Element ? event.target.closest('[data-intavo-open],a[href^="#intavo="]') : null
    const slug = target?.getAttribute('data-intavo-open') ?? target?.getAttribute('href')?.slice('#intavo='.length)
    if (!slug) return
    event.preventDefault()
    void this.open(slug)
  }

  private fillSlots(): void {
    for (const slot of document.querySelectorAll<HTMLElement>('[data-intavo]:empty')) {
      const slug = slot.dataset.intavo ?? ''
      void this.inPage(slug, slot)
    }
  }

  private async inPage(slug: string, place: Element): Promise<boolean> {
    const entry = (await this.ask(slug))?.touchpoints.find((one) => one.slug === slug)
    if (!entry) return false
    this.entries.push(entry)
    place.replaceChildren()
    this.put(entry, 'inline', place)
    return true
  }

  /** The hosted page: the plain form gives way to the same drawing as everywhere. */
  private async hosted(slug: string): Promise<void> {
    const place = document.getElementById('intavo-here')
    if (place) await this.inPage(slug, place)
  }
}
