import { standBar } from './bars'
import { keepArranged } from './corners'
import { written } from '../clean'
import { backdropArt, behindCard, loadFonts, paintMore } from './art'
import { refreshed } from './fresh'
import { nextStep, stepOf, takesNameless } from './flow'
import { inUse } from './in-use'
import { el } from '../render/dom'
import { greet, nudge, onTheFace, shaped, stack, strip } from './face'
import { sends, type Drawing } from '../render/draw'
import { button, gone, wayOf } from './reaching'
import type { Does, Extras, Part, Sent, Step, Wrong } from '../render/types'
import { say } from './words'

type Base = typeof Drawing
const PLACED = ['above', 'beside', 'behind']

/** What a drawing was told besides its document. */
export const extrasOf = (drawing: Drawing): Promise<Extras> =>
  (drawing as Drawing & { extras: Promise<Extras> }).extras

/**
 * Everything that the loader's own drawing leaves out: steps, pictures around, buttons that unfold, codes,
 * going by itself.
 */
export const full = (Base: Base): Base =>
  class Full extends Base {
    declare code: string | null
    declare extras: Promise<Extras>
    declare private way: string[]
    declare private face: HTMLElement | null
    declare private placed: HTMLElement[]

    protected override begin(): void {
      this.way = []
      this.placed = []
      this.code = null
      this.extras = this.asks() ? this.actions.extras(this.showsCode()) : Promise.resolve({})
      void this.extras.then((found) => found.code && this.giveCode(found.code)).catch(() => undefined)
      loadFonts(this.look, this.around.base, this.page)
      if (this.behind) backdropArt(this.behind, this.page, this.around.base, this.look)
      const { steps } = this.document
      const kept = steps.find((step) => step.id === this.around.typed?.step)
      if (kept && steps[0] && kept !== steps[0]) this.way.push(steps[0].id)
      this.draw((kept ?? steps[0])?.id ?? '')
    }

    private asks(): boolean {
      const parts = this.document.steps.flatMap((step) => step.parts)
      const wanted = (part: Part) =>
        part.kind === 'hours' || part.kind === 'questions' || (part.kind === 'field' && part.input === 'slot')
      return this.mode === 'stage' || this.showsCode() || parts.some(wanted)
    }

    /** The code stands where nothing has to be sent for it. */
    private showsCode(): boolean {
      return !!this.document.steps[0]?.parts.some((part) => part.kind === 'code')
    }

    private giveCode(code: string): void {
      this.code = code
      for (const place of this.card.querySelectorAll<HTMLElement>('[data-code]')) {
        place.hidden = false
        const output = place.querySelector('output')
        if (output) output.textContent = code
      }
    }

    protected override makeCard(): HTMLElement {
      const card = super.makeCard()
      if (this.document.stance === 'button' && this.mode !== 'inline') this.root.append(this.dock(card))
      return card
    }

    /** The button itself, and the card that it opens. */
    private dock(card: HTMLElement): HTMLElement {
      const { face } = this.document
      const label = (face.does?.action === 'channel' && wayOf(this, face.does.channel)?.button) || face.label
      const words = onTheFace(this, label)
      if (face.does) this.face = button(this, face.does, 'button face', ...words)
      else {
        this.face = el(
          this.page,
          'button',
          { class: 'button face', type: 'button', 'aria-expanded': 'false' },
          ...words,
        )
        if (face.opens === 'step') this.face.addEventListener('click', () => this.unfold(card.hidden))
      }
      shaped(this, this.face)
      card.hidden = this.mode !== 'stage' || !!face.does || face.opens === 'signs'
      this.face.hidden = !!face.does && gone(this, face.does)
      const greeting = greet(this, () =>
        face.opens === 'step' && !face.does ? this.unfold(true) : this.face?.click(),
      )
      const above = face.opens === 'signs' && !face.does ? [stack(this, this.face)] : []
      nudge(this, this.face)
      const made = el(
        this.page,
        'div',
        { class: 'dock' },
        this.face,
        ...above,
        ...(greeting ? [greeting] : []),
        card,
      )
      if (face.strip) {
        this.root.append(strip(this))
        made.classList.add('with-strip')
      }
      return made
    }

    override unfold(open: boolean): void {
      this.card.hidden = !open
      inUse(this.host, open)
      this.face?.setAttribute('aria-expanded', String(open))
      if (open) {
        this.actions.clicked()
        this.heading()?.focus()
        if (this.card.querySelector('.ways') && !this.began)
          void refreshed().then((anew) => {
            if (anew && !this.began) this.draw(this.step.id)
          })
      } else this.face?.focus()
    }

    protected override paint(): void {
      super.paint()
      paintMore(this.host, this.look)
      this.root.querySelector('.dock')?.setAttribute('data-place', this.look.place)
    }

    private get bar(): boolean {
      return this.document.stance === 'bar' && this.mode !== 'inline'
    }

    /** Said once for each revision; the owner reads it where the touchpoint is looked over. */
    private liesOver(): void {
      const { memo, entry } = this.around
      const revision = String(entry?.revision)
      if (this.mode !== 'live' || memo('over') === revision) return
      memo('over', revision)
      this.actions.over?.()
    }

    override stand(): void {
      super.stand()
      if (this.bar)
        this.held.push(standBar(this.page, this.host, this.card, this.look, () => this.liesOver()))
    }

    override show(parent: Element): void {
      super.show(parent)
      if (this.bar) {
        let high = this.card.offsetHeight
        // With its height the room that it needs.
        const sizes = new ResizeObserver(() => {
          if (this.card.offsetHeight === high) return
          high = this.card.offsetHeight
          this.stand()
        })
        sizes.observe(this.card)
        this.undo.push(() => sizes.disconnect())
      }
      if (this.mode === 'live') this.goByItself()
      if (['button', 'card', 'bar'].includes(this.document.stance) && this.mode === 'live')
        keepArranged(this.page)
    }

    /** Gone after its seconds, but not while somebody is in it. */
    private goByItself(): void {
      const seconds = this.document.leaving.after
      if (seconds === null) return
      const look = (): void => {
        const active = this.root.activeElement
        const inUse = this.card.matches(':hover') || (active !== null && active !== this.heading())
        if (inUse) timer = window.setTimeout(look, 1000)
        else this.actions.close()
      }
      let timer = window.setTimeout(look, seconds * 1000)
      this.undo.push(() => clearTimeout(timer))
    }

    override draw(step: string): void {
      this.placed = []
      super.draw(step)
      const behind = behindCard(this.page, this.around.base, this.look)
      this.card.classList.toggle(
        'beside-it',
        this.placed.some((one) => one.classList.contains('beside')),
      )
      this.card.prepend(...(behind ? [behind] : []), ...this.placed)
      this.card.querySelector('.body')?.prepend(...this.progress())
    }

    /** Pictures may stand around the form; parts of one row stand side by side. */
    protected override put(form: HTMLElement, part: Part, element: HTMLElement): void {
      if (part.kind === 'picture' && PLACED.includes(part.place)) {
        this.placed.push(element)
        return
      }
      if (!part.row) return super.put(form, part, element)
      let row = form.lastElementChild
      if (row?.getAttribute('data-row') !== part.row) {
        row = el(this.page, 'div', { class: 'row', 'data-row': part.row })
        form.append(row)
      }
      element.style.setProperty('--share', String(part.share))
      row.append(element)
    }

    protected override cross(): HTMLElement[] {
      const { cross } = this.look
      const made = super.cross()
      for (const one of made) {
        one.classList.toggle('at-start', cross.place === 'start')
        this.card.classList.toggle('starts', cross.place === 'start')
        // Words beside it keep clear of it, however wide its own word is; under a picture they have the whole
        // line.
        const sizes = new this.view.ResizeObserver(() => {
          const above = this.card.querySelector<HTMLElement>('.above')
          const beside = (above?.offsetHeight ?? 0) < one.offsetTop + one.offsetHeight
          this.host.style.setProperty('--clear', `${beside ? one.offsetWidth - 4 : 0}px`)
        })
        sizes.observe(one)
        sizes.observe(this.card)
        this.card.classList.toggle('worded', cross.style === 'word')
        if (cross.style !== 'word') continue
        one.textContent = cross.word
        one.setAttribute('aria-label', cross.word)
      }
      return made
    }

    private progress(): HTMLElement[] {
      const steps = this.onTheWay()
      const at = steps.indexOf(this.step)
      if (steps.length < 3 || at < 0) return []
      const bars = steps.map((_, index) => el(this.page, 'i', index <= at ? { class: 'done' } : {}))
      const label = say(this, 'step', { at: at + 1, all: steps.length })
      return [el(this.page, 'div', { class: 'progress', role: 'img', 'aria-label': label }, ...bars)]
    }

    /** The steps that can be come to from the first; what stands behind a mail's link is none of them. */
    private onTheWay(): Step[] {
      const { steps } = this.document
      const found = steps.slice(0, 1)
      for (const one of found) {
        const said = written(one)
        found.push(
          ...steps.filter((other) => !found.includes(other) && said.includes(`"next":"${other.id}"`)),
        )
      }
      return steps.filter((one) => found.includes(one))
    }

    /** A button's card only folds. */
    protected override leave(): void {
      if (this.document.stance === 'button' && this.mode === 'live') this.unfold(false)
      else super.leave()
    }

    protected override closesOutside(): boolean {
      return super.closesOutside() || this.document.stance === 'button'
    }

    override clicked(does: Does, event: Event): void {
      super.clicked(does, event)
      if (this.mode === 'stage') return
      if (does.action === 'back') this.back()
      else if (does.action === 'step') this.forward(does.next)
      else if (does.action === 'spot') this.goTo(does.spot)
    }

    private goTo(spot: string): void {
      this.leave()
      const behavior = this.view.matchMedia('(prefers-reduced-motion:reduce)').matches ? 'auto' : 'smooth'
      if (spot === 'top' || spot === 'bottom')
        this.view.scrollTo({ top: spot === 'top' ? 0 : this.page.body.scrollHeight, behavior })
      else this.page.getElementById(spot)?.scrollIntoView({ behavior })
    }

    private back(): void {
      const before = this.way.pop() ?? this.document.steps[0]?.id
      if (before) this.go(before)
    }

    private go(step: string): void {
      this.draw(step)
      this.heading()?.focus()
      if (this.began) this.around.keep({ step, ...this.typed })
    }

    /** On to the next step, if nothing is missing on this one. */
    private forward(to: string | null = null): void {
      this.keepTyped()
      const missing = this.made
        .filter(({ control }) => control?.focus.getAttribute('aria-required') === 'true' && !control.read())
        .map(({ control }) => ({ field: `.${control?.name}`, message: say(this, 'fill') }))
      if (missing.length) return this.mend(missing)
      const next = nextStep(this.step, this.typed.answers) ?? to
      if (!next) return
      this.way.push(this.step.id)
      this.go(next)
    }

    override choose(name: string, value: string): void {
      this.typed.answers[name] = value
      this.start()
      if (this.mode === 'stage' || sends(this.step)) return
      const here = this.step.id
      const next = nextStep(this.step, this.typed.answers)
      const following = this.document.steps.find((step) => step.id === next)
      // Where no later step sends it, the choice itself is the answer.
      if (takesNameless(this.document) && !sends(following)) void this.actions.send(here, this.typed, '')
      if (!next) return
      this.way.push(here)
      this.go(next)
    }

    protected override async submit(): Promise<void> {
      if (this.mode !== 'stage' && !sends(this.step)) this.forward()
      else await super.submit()
    }

    protected override start(): void {
      super.start()
      inUse(this.host)
    }

    override settle(sent: Sent): void {
      if (sent.kind === 'taken') {
        inUse(this.host, false)
        this.code = sent.code ?? this.code
        if (sent.next) this.way = []
      }
      super.settle(sent)
      if (sent.kind === 'taken' && sent.file) {
        this.notice('', el(this.page, 'a', { class: 'button', href: sent.file.url }, sent.file.label))
      }
      if (this.code) this.giveCode(this.code)
    }

    protected override mend(errors: Wrong[]): void {
      const elsewhere = errors
        .map((one) => stepOf(this.document, one.field.split('.').pop() ?? ''))
        .find(Boolean)
      const here = this.made.some(
        ({ control }) => control && errors.some((one) => one.field.endsWith(`.${control.name}`)),
      )
      if (elsewhere && !here && elsewhere !== this.step.id) this.draw(elsewhere)
      super.mend(errors)
    }
  }
