import { CSS } from './css'
import { el } from './dom'
import { looks, paint, PHONE } from './look'
import { makePart, mendParts, moreCss } from './parts'
import type { Drawing, Features } from './drawing'
import type { Feature } from './feature'
import type {
  Actions,
  Around,
  Does,
  FullValues,
  Made,
  Mode,
  Part,
  Says,
  SeenDocument,
  Sent,
  Spoken,
  Step,
  Values,
  Wrong,
} from './types'

const MODAL = ['pop-up', 'side-panel', 'full-page']
export function sends(step: Step | undefined): boolean {
  return !!step?.parts.some((part) => part.kind === 'button' && !part.hidden && part.does.action === 'send')
}

/**
 * A touchpoint on a page: draws its steps, takes in what is typed, shows what came of sending it. What
 * pop-up, card and bar need; the rest is handed in as features (see ../more/features.ts).
 */
export class DrawnTouchpoint implements Drawing {
  readonly host: HTMLElement
  readonly root: ShadowRoot
  readonly card: HTMLElement
  readonly words: Spoken
  look: FullValues
  made: Made[] = []
  typed: Values = { answers: {}, consents: {} }
  step!: Step
  began = false
  #busy = false
  undo: (() => void)[] = []
  /** How to let go of the page. */
  held: (() => void)[] = []
  behind: HTMLElement | null = null
  view: Window & typeof globalThis
  #features: Feature[]

  constructor(
    readonly page: Document,
    readonly document: SeenDocument,
    readonly mode: Mode,
    readonly actions: Actions,
    readonly around: Around,
    features: Features,
  ) {
    this.view = page.defaultView ?? window
    const { lang, dir, words } = document.speech
    this.words = words
    this.host = el(page, 'div', {
      'data-intavo-touchpoint': mode === 'live' ? document.stance : mode,
      lang,
      dir,
    })
    this.root = this.host.attachShadow({ mode: 'open' })
    this.look = looks(document.look, this.view)
    this.#adopt()
    this.#features = features.map((make) => make(this))
    this.card = this.#makeCard()
    if (around.typed) {
      const { answers, consents } = around.typed
      this.typed = { answers, consents }
    }
    this.#paint()
    const narrow = this.view.matchMedia(PHONE)
    narrow.onchange = () => this.#paint()
    this.undo.push(() => (narrow.onchange = null))
    if (!this.#tell('begin')) this.draw(this.document.steps[0]?.id ?? '')
  }

  /** Tells the features in turn; true once one of them has seen to it. */
  #tell<K extends keyof Feature>(what: K, ...of: Parameters<NonNullable<Feature[K]>>): boolean {
    return this.#features.some((one) => (one[what] as ((...of: unknown[]) => unknown) | undefined)?.(...of))
  }

  get #modal(): boolean {
    return this.mode !== 'inline' && MODAL.includes(this.document.stance)
  }

  #adopt(): void {
    // The sheet must belong to the window of the page it is used in; a CSP does not reach it.
    this.root.adoptedStyleSheets = [CSS, moreCss(), this.document.look.css].filter(Boolean).map((text) => {
      const sheet = new this.view.CSSStyleSheet()
      sheet.replaceSync(text)
      return sheet
    })
  }

  #makeCard(): HTMLElement {
    const { stance } = this.document
    const inPage = this.mode === 'inline' || stance === 'in-page'
    const card: HTMLElement = this.#modal
      ? el(this.page, 'dialog', { class: 'card fixed' })
      : el(this.page, 'section', { class: inPage || stance === 'button' ? 'card' : 'card fixed' })
    if (!inPage && stance === 'card') card.setAttribute('role', 'dialog')
    if (!inPage) card.setAttribute('data-stance', stance)
    if (this.#modal) this.root.append((this.behind = el(this.page, 'div', { class: 'backdrop' })))
    this.root.append(card)
    return card
  }

  #paint(): void {
    this.look = looks(this.document.look, this.view)
    paint(this.host, this.look)
    this.card.setAttribute('data-place', this.look.place)
    this.card.setAttribute('data-height', String(+this.look.height ? 'set' : this.look.height))
    this.#tell('painted')
  }

  /** Put it on the page; a modal one takes the focus and gives it back when it goes. */
  show(parent: Element): void {
    parent.append(this.host)
    const { card } = this
    this.stand()
    this.#tell('shown')
    if (this.mode === 'stage') return
    if (this.#modal) this.heading()?.focus()
    // What is typed here is none of the page's shortcuts.
    for (const name of ['keydown', 'keypress', 'keyup'])
      this.root.addEventListener(
        name,
        (event) => /^(Tab|Esc)/.test((event as KeyboardEvent).key) || event.stopPropagation(),
      )
    if (this.mode === 'live') {
      card.classList.add(this.look.arrival)
      this.#listen()
    }
  }

  /** Takes hold of the page, anew where the page has changed beneath it. */
  stand(): void {
    this.#letGo()
    this.#tell('stands')
    if (!this.#modal) return
    const card = this.card as HTMLDialogElement
    if (this.mode === 'stage') return card.setAttribute('open', '')
    // What was taken out of the page with its body is open, but no longer in front of it.
    if (!card.matches(':modal')) {
      card.removeAttribute('open')
      card.showModal()
    }
    if (this.document.leaving.hold_scroll) this.#holdScroll()
    // Never holds the page without being seen; what went with a piece of the page comes back, and takes hold
    // anew.
    const look = setInterval(() => {
      if (!this.host.isConnected) this.#letGo()
      else if (card.checkVisibility?.() === false || this.host.closest('[inert]')) this.actions.close()
    }, 400)
    this.held.push(() => clearInterval(look))
  }

  #letGo(): void {
    this.held.splice(0).forEach((release) => release())
  }

  #holdScroll(): void {
    const { documentElement: root, body } = this.page
    // What the body says of scrolling is the screen's, as long as the root says nothing: a sticky header
    // stays.
    const says = [root, body].find((one) => this.view.getComputedStyle(one).overflow !== 'visible')
    this.#set(says ?? root, 'overflow', 'hidden')
    // Nothing moves aside where the bar for scrolling was.
    if (this.view.innerWidth > root.clientWidth) this.#set(root, 'scrollbar-gutter', 'stable')
  }

  #set({ style }: HTMLElement, name: string, value: string): void {
    const before = style.getPropertyValue(name)
    style.setProperty(name, value, 'important')
    this.held.push(() => style.setProperty(name, before))
  }

  remove(): void {
    this.undo.splice(0).forEach((undo) => undo())
    this.#letGo()
    const { card, host } = this
    const modal = this.#modal && this.mode === 'live'
    if (modal) (card as HTMLDialogElement).close()
    const still =
      this.look.going === 'none' || this.view.matchMedia('(prefers-reduced-motion:reduce)').matches
    if (this.mode !== 'live' || still || !host.isConnected) return host.remove()
    // Closed, so that the page is free at once; what goes is only a picture of it.
    if (modal) card.setAttribute('open', '')
    this.behind?.remove()
    host.inert = true
    card.classList.remove(this.look.arrival)
    void card.offsetWidth
    card.classList.add('going', this.look.going)
    card.addEventListener('animationend', () => host.remove(), { once: true })
  }

  /** Draw a step; what was typed before stands in it again. */
  draw(step: string): void {
    const found = this.document.steps.find((one) => one.id === step)
    if (!found) return
    this.keepTyped()
    this.step = found
    this.made = []
    const form = el(this.page, 'form', { novalidate: '' })
    for (const part of found.parts) {
      if (part.hidden) continue
      const { element } = this.#make(part)
      if (!this.#tell('puts', form, part, element)) form.append(element)
    }
    this.#trap(form)
    form.addEventListener('submit', (event) => {
      event.preventDefault()
      void this.#submit()
    })
    form.addEventListener('input', () => this.start())
    const cross = this.#cross()
    this.card.classList.toggle('has-cross', cross.length > 0)
    this.card.replaceChildren(...cross, el(this.page, 'div', { class: 'body' }, form))
    this.card.ariaLabel = this.heading()?.textContent || this.words.message
    this.card.scrollTop = 0
    this.#tell('drawn')
  }

  #make(part: Part): Made {
    const made = makePart(this, part)
    this.made.push(made)
    const { control } = made
    if (control) {
      const known = control.consent ? this.typed.consents[control.name] : this.typed.answers[control.name]
      if (known !== undefined) control.write(known)
    }
    return made
  }

  /** A field that only machines fill in. */
  #trap(form: HTMLElement): void {
    if (!this.document.then.trap || !sends(this.step)) return
    const input = el(this.page, 'input', { name: 'website', tabindex: '-1', autocomplete: 'off' })
    form.append(
      el(
        this.page,
        'div',
        { class: 'trap', 'aria-hidden': 'true' },
        el(this.page, 'label', {}, this.words.trap, input),
      ),
    )
  }

  #cross(): HTMLElement[] {
    const after = this.document.leaving.cross
    const { stance } = this.document
    if (after === null || this.mode === 'inline' || stance === 'in-page') return []
    const made = el(this.page, 'button', { class: 'cross', type: 'button', 'aria-label': this.words.close })
    made.addEventListener('click', () => this.leave())
    if (after && this.mode === 'live') {
      made.hidden = true
      setTimeout(() => (made.hidden = false), after * 1000)
    }
    return [made]
  }

  /** The visitor wants it gone. */
  leave(): void {
    if (!this.#tell('leaves')) this.actions.close()
  }

  heading(): HTMLElement | null {
    return this.card.querySelector('h2')
  }

  #listen(): void {
    const { leaving } = this.document
    const within = (event: Event): boolean => event.composedPath().includes(this.host)
    const key = (event: KeyboardEvent): void => {
      if (this.#modal && event.key === 'Tab') this.#keepFocus(event)
      // What interrupts hears Esc wherever the focus is; what the page has made of it is the page's.
      if (event.key !== 'Escape' || event.defaultPrevented || (!this.#interrupts && !within(event))) return
      event.preventDefault()
      if (leaving.escape) this.leave()
    }
    this.page.addEventListener('keydown', key)
    this.undo.push(() => this.page.removeEventListener('keydown', key))
    this.card.addEventListener('cancel', (event) => {
      event.preventDefault()
      if (leaving.escape) this.leave()
    })
    if (!leaving.outside || (!this.#interrupts && this.document.stance !== 'button')) return
    const target: EventTarget = this.#modal ? this.card : this.page
    const outside = (event: Event): void => {
      if (this.card.hidden || (this.#modal ? event.target !== this.card : within(event))) return
      const { clientX: x, clientY: y } = event as PointerEvent
      const { left, right, top, bottom } = this.card.getBoundingClientRect()
      if (x < left || x > right || y < top || y > bottom) this.leave()
    }
    target.addEventListener('pointerdown', outside)
    this.undo.push(() => target.removeEventListener('pointerdown', outside))
  }

  /** After the last comes the first, not the browser's own bars. */
  #keepFocus(event: KeyboardEvent): void {
    const active = this.root.activeElement
    const ring = [...this.card.querySelectorAll<HTMLElement>('*')].filter(
      (one) => one === active || (one.tabIndex >= 0 && one.offsetParent),
    )
    if (event.shiftKey) ring.reverse()
    if (ring.at(-1) !== active) return
    event.preventDefault()
    ring[0]?.focus()
  }

  /** Whether it comes over the page, and not beside it. */
  get #interrupts(): boolean {
    return this.#modal || this.document.stance === 'card'
  }

  start(): void {
    this.keepTyped()
    if (this.mode !== 'stage') this.around.keep({ step: this.step.id, ...this.typed })
    this.#tell('started')
    if (this.began) return
    this.began = true
    this.actions.started()
  }

  keepTyped(): void {
    for (const { control } of this.made) {
      if (!control) continue
      const value = control.read()
      if (control.consent) this.typed.consents[control.name] = value === true
      else this.typed.answers[control.name] = String(value)
    }
  }

  /** Opens or folds the card of a button; false where nothing folds. */
  unfold(open: boolean): boolean {
    return this.#tell('unfolds', open)
  }

  /** One of several was chosen: it is kept, and leads on where it leads. */
  choose(name: string, value: string): void {
    this.typed.answers[name] = value
    this.#tell('chosen')
  }

  /** Something was clicked that does something. */
  clicked(does: Does, event: Event): void {
    if (this.mode === 'stage') return event.preventDefault()
    this.actions.clicked()
    if (does.goal) this.actions.goal()
    if (does.action === 'close') this.leave()
    else if (does.action === 'touchpoint') this.actions.open(does.touchpoint)
    else this.#tell('clicked', does)
  }

  async #submit(): Promise<void> {
    if (this.#busy || this.mode === 'stage') return
    if (!sends(this.step)) return void this.#tell('forward')
    this.keepTyped()
    this.#wait(true)
    try {
      const trap = this.card.querySelector<HTMLInputElement>('.trap input')?.value ?? ''
      this.settle(await this.actions.send(this.step.id, this.typed, trap))
    } finally {
      this.#wait(false)
    }
  }

  #wait(on: boolean): void {
    this.#busy = on
    for (const button of this.card.querySelectorAll('[type=submit]'))
      button.setAttribute('aria-disabled', String(on))
  }

  /** Show what came of sending. */
  settle(sent: Sent): void {
    if (sent.kind === 'mend') return this.mend(sent.errors)
    if (sent.kind === 'kept') return this.notice(this.words.kept)
    this.around.keep(null)
    if (this.document.then.page && !sent.suggest) return this.view.location.assign(this.document.then.page)
    if (sent.next) this.draw(sent.next)
    else this.notice(this.words.thanks)
    this.#reply(sent.says)
    this.#tell('settled', sent)
    if (sent.suggest) this.actions.offer(sent.suggest.email)
    if (this.mayFocus()) this.heading()?.focus()
  }

  /** Whether nobody is at anything else of the page. */
  mayFocus(): boolean {
    return [null, this.host, this.page.body].includes(this.page.activeElement as HTMLElement)
  }

  /** What is wrong is shown beside its field, by the rest of the code: it comes when it is needed. */
  mend(errors: Wrong[]): void {
    void this.actions.more().then(() => {
      // That it was kept holds no longer.
      this.card.querySelector('.notice')?.remove()
      if (!mendParts(this, errors)) this.notice(errors[0]?.message ?? '')
    })
  }

  /** Said anew, now that more is known of the visitor; not under the hands of whoever is filling it in. */
  again(): void {
    if (!this.began) this.draw(this.step.id)
  }

  notice(text = '', ...more: Node[]): void {
    this.card.querySelector('.notice')?.remove()
    const box = el(this.page, 'div', { class: 'notice', role: 'status' }, text, ...more)
    this.card.querySelector('form')?.append(box)
  }

  #reply(says: Says | null): void {
    const place = this.card.querySelector<HTMLElement>('.reply')
    if (!place || !says || (!says.title && !says.text)) return
    place.replaceChildren(el(this.page, 'strong', {}, says.title), el(this.page, 'p', {}, says.text))
    place.hidden = false
  }
}
