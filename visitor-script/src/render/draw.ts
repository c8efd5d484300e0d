import { CSS } from './css'
import { el, focusable } from './dom'
import { makePart, type Made } from './parts'
import type { Actions, Part, Says, SeenDocument, Sent, Values } from './types'

const CROSS =
  '<svg viewBox="0 0 18 18" aria-hidden="true"><path d="M2 2l14 14M16 2L2 16" stroke="currentColor" stroke-width="2.4" stroke-linecap="round"/></svg>'

/** `modal`: a pop-up over the page; `inline`: in the page; `stage`: a pop-up as the editor shows it. */
export type Mode = 'modal' | 'inline' | 'stage'

/** A touchpoint on a page: draws its steps, takes in what is typed, shows what came of sending it. */
export class Drawing {
  readonly host: HTMLElement
  readonly root: ShadowRoot
  readonly card: HTMLElement
  private made = new Map<string, Made>()
  private typed: Values = { answers: {}, consents: {} }
  private step = ''
  private began = false
  private busy = false

  constructor(
    private page: Document,
    private document: SeenDocument,
    private mode: Mode,
    private actions: Actions,
  ) {
    this.host = el(page, 'div', { 'data-intavo-touchpoint': mode })
    this.root = this.host.attachShadow({ mode: 'open' })
    this.adopt()
    const { look } = document
    this.card =
      mode === 'inline'
        ? el(page, 'section', { class: 'card inline' })
        : el(page, 'dialog', { class: 'card', 'data-place': look?.place ?? 'middle', 'data-phone': look?.phone?.place ?? 'bottom' })
    if (mode === 'stage') this.root.append(el(page, 'div', { class: 'backdrop' }))
    this.root.append(this.card)
    this.paint()
    this.draw(document.steps[0]?.id ?? '')
    if (mode === 'modal') this.listen()
  }

  private adopt(): void {
    // The sheet must belong to the window of the page it is used in; a CSP does not reach it.
    const Sheet = (this.page.defaultView ?? window).CSSStyleSheet
    const sheet = new Sheet()
    sheet.replaceSync(CSS)
    this.root.adoptedStyleSheets = [sheet]
  }

  private paint(): void {
    const { look } = this.document
    const colours: Record<string, string | undefined> = { ...look?.colours }
    const set = (name: string, value: string | undefined) => value && this.host.style.setProperty(name, value)
    set('--w', `${look?.width ?? 480}px`)
    set('--card', colours.card)
    set('--text', colours.text)
    set('--button', colours.button)
    set('--button-text', colours.button_text)
  }

  /** Put it on the page; a modal one takes the focus and gives it back when it goes. */
  show(parent: Element): void {
    parent.append(this.host)
    const card = this.card
    if (!(card instanceof (this.page.defaultView ?? window).HTMLDialogElement)) return
    if (this.mode === 'stage') {
      card.setAttribute('open', '')
      return
    }
    card.showModal()
    this.heading()?.focus()
  }

  remove(): void {
    if (this.card instanceof HTMLDialogElement && this.card.open) this.card.close()
    this.host.remove()
  }

  /** Draw a step; what was typed before stands in it again. */
  draw(step: string): void {
    const found = this.document.steps.find((one) => one.id === step)
    if (!found) return
    this.keepTyped()
    this.step = step
    this.made.clear()
    const form = el(this.page, 'form', { novalidate: '' })
    for (const part of found.parts) if (!part.hidden) this.add(form, part)
    form.addEventListener('submit', (event) => {
      event.preventDefault()
      void this.submit()
    })
    form.addEventListener('input', () => this.start())
    this.card.replaceChildren(...(this.mode === 'inline' ? [] : this.cross()), form)
    this.name()
  }

  private add(form: HTMLElement, part: Part): void {
    const made = makePart(this.page, part)
    this.made.set(part.id, made)
    form.append(made.element)
    const { control } = made
    if (control instanceof HTMLInputElement && control.type === 'checkbox') {
      control.checked = this.typed.consents[control.name] ?? false
    } else if (control) {
      control.value = this.typed.answers[control.name] ?? ''
    }
    if (part.kind === 'button' && this.mode !== 'stage') {
      made.element.addEventListener('click', () => {
        this.actions.clicked()
        if (part.does.action === 'close') this.actions.close()
      })
    }
  }

  private cross(): HTMLElement[] {
    const after = this.document.leaving?.cross
    if (after === null) return []
    const cross = el(this.page, 'button', { class: 'cross', type: 'button', 'aria-label': 'Close' })
    cross.innerHTML = CROSS
    cross.addEventListener('click', () => this.actions.close())
    if (after && this.mode === 'modal') {
      cross.hidden = true
      setTimeout(() => (cross.hidden = false), after * 1000)
    }
    return [cross]
  }

  private heading(): HTMLElement | null {
    return this.card.querySelector('h2')
  }

  private name(): void {
    const heading = this.heading()
    if (heading) heading.id = 'intavo-title'
    if (heading) this.card.setAttribute('aria-labelledby', 'intavo-title')
    else this.card.setAttribute('aria-label', 'Message')
  }

  private listen(): void {
    const { leaving } = this.document
    this.card.addEventListener('keydown', (event) => {
      if (event.key === 'Escape') {
        event.preventDefault()
        if (leaving?.escape !== false) this.actions.close()
      } else if (event.key === 'Tab') this.keepFocus(event)
    })
    this.card.addEventListener('cancel', (event) => {
      event.preventDefault()
      if (leaving?.escape !== false) this.actions.close()
    })
    this.card.addEventListener('pointerdown', (event) => {
      if (event.target !== this.card || leaving?.outside === false) return
      const box = this.card.getBoundingClientRect()
      const inside = event.clientX >= box.left && event.clientX <= box.right && event.clientY >= box.top && event.clientY <= box.bottom
      if (!inside) this.actions.close()
    })
  }

  private keepFocus(event: KeyboardEvent): void {
    const all = focusable(this.card)
    const first = all[0]
    const last = all[all.length - 1]
    const active = this.root.activeElement
    if (event.shiftKey ? active === first || active === this.heading() : active === last) {
      event.preventDefault()
      ;(event.shiftKey ? last : first)?.focus()
    }
  }

  private start(): void {
    if (this.began) return
    this.began = true
    this.actions.started()
  }

  private keepTyped(): void {
    for (const { control } of this.made.values()) {
      if (control instanceof HTMLInputElement && control.type === 'checkbox') this.typed.consents[control.name] = control.checked
      else if (control) this.typed.answers[control.name] = control.value
    }
  }

  private async submit(): Promise<void> {
    if (this.busy || this.mode === 'stage') return
    this.keepTyped()
    this.wait(true)
    try {
      this.settle(await this.actions.send(this.step, this.typed))
    } finally {
      this.wait(false)
    }
  }

  private wait(on: boolean): void {
    this.busy = on
    for (const button of this.card.querySelectorAll('[type=submit]')) button.setAttribute('aria-disabled', String(on))
  }

  /** Show what came of sending. */
  settle(sent: Sent): void {
    if (sent.kind === 'mend') return this.mend(sent.errors)
    if (sent.kind === 'kept') {
      return this.notice('There is no connection just now. What you wrote is kept and will be sent by itself.')
    }
    if (sent.next) this.draw(sent.next)
    this.reply(sent.says)
    if (sent.suggest) this.offer(sent.suggest)
    this.heading()?.focus()
  }

  private mend(errors: { field: string; message: string }[]): void {
    let first: HTMLElement | undefined
    for (const { control, error } of this.made.values()) {
      if (!control || !error) continue
      const wrong = errors.find((one) => one.field.endsWith(`.${control.name}`))
      error.hidden = !wrong
      error.textContent = wrong?.message ?? ''
      control.setAttribute('aria-invalid', String(!!wrong))
      if (wrong) {
        control.setAttribute('aria-describedby', error.id)
        first ??= control
      }
    }
    if (first) first.focus()
    else this.notice(errors[0]?.message ?? 'This could not be sent.')
  }

  private notice(text: string, ...more: Node[]): void {
    this.card.querySelector('.notice')?.remove()
    const box = el(this.page, 'div', { class: 'notice', role: 'status' }, text, ...more)
    this.card.querySelector('form')?.append(box)
  }

  private reply(says: Says | null): void {
    const place = this.card.querySelector<HTMLElement>('.reply')
    if (!place || !says || (!says.title && !says.text)) return
    place.replaceChildren(el(this.page, 'strong', {}, says.title), el(this.page, 'p', {}, says.text))
    place.hidden = false
  }

  private offer(email: string): void {
    const take = el(this.page, 'button', { class: 'button plain', type: 'button' }, `Use ${email}`)
    take.addEventListener('click', () => {
      take.setAttribute('aria-disabled', 'true')
      void this.actions.correct(email).then((sent) => {
        if (sent.kind === 'taken') this.notice(`Thank you. We write to ${email}.`)
        else this.settle(sent)
      })
    })
    this.notice(`Did you mean ${email}?`, take)
  }
}
