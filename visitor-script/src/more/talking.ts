import { read, written } from '../clean'
import { randomId } from '../memory'
import { device } from '../plan'
import type { FileSaid, SaidNow, TalkNow } from '../generated/wire'
import { el } from '../render/dom'
import type { Drawing, Maker } from '../render/drawing'

import type { Extras, Spoken } from '../render/types'
import { extrasOf } from './given'
import { inUse, LIVELY } from './in-use'
import { offered } from './offering'
import { answered } from './telling'
import { say } from './words'

/** What is kept of a conversation in the visitor's own browser. */
interface Kept {
  where: string
  seen: number
  out: Out[]
}
/** What they said, and how it stands there until it has gone through. */
interface Out extends SaidNow {
  shown: string
}

const QUICK = 2000
const SLOW = 10_000
const FOLDED = 15_000
const PAUSES = [2000, 5000, 15_000, 30_000]
const MOST_FILE = 10 * 1024 * 1024
const MOST_TEXT = 4000
const HINTS: Record<string, keyof Spoken> = { email: 'your_email', phone: 'your_phone' }

/** Who begins a conversation, and where. */
function beginning({ around, page: doc }: Drawing): object {
  const { location } = doc.defaultView ?? window
  return {
    touchpoint: around.entry.id,
    revision: around.entry.revision,
    page: { url: location.href, title: doc.title },
    device: device(),
    visitor: { language: navigator.language, utc_offset: -new Date().getTimezoneOffset() },
  }
}

/** One conversation on one page: what is said, what is sent, and what comes back. */
class Conversation {
  readonly element: HTMLElement
  #log: HTMLElement
  #state: HTMLElement
  #choices: HTMLElement
  #offers: HTMLElement
  #box: HTMLTextAreaElement
  #kept: Kept | null
  #after = 0
  #lively = 0
  #timer = 0
  #tries = 0
  #busy = false
  #asks: string | null = null
  #begun = false
  /** What is sent is sent one after the other, as it was said. */
  #turn: Promise<unknown> = Promise.resolve()

  constructor(
    readonly drawing: Drawing,
    readonly hint: string,
    files: boolean,
  ) {
    const { page: doc } = drawing
    this.#state = el(doc, 'p', { class: 'quiet', role: 'status' })
    this.#log = el(doc, 'ol', {
      class: 'said-log',
      role: 'log',
      'aria-live': 'polite',
      'aria-label': say(drawing, 'conversation'),
    })
    this.#choices = el(doc, 'div', { class: 'choices', role: 'group', 'aria-label': say(drawing, 'replies') })
    this.#box = el(doc, 'textarea', { rows: '1', 'aria-label': hint, placeholder: hint })
    this.#offers = el(doc, 'div', {
      class: 'questions',
      role: 'group',
      'aria-label': say(drawing, 'one_of_these'),
      hidden: '',
    })
    const send = el(doc, 'button', { class: 'button', type: 'button' }, say(drawing, 'send'))
    send.addEventListener('click', () => this.#typed())
    this.#box.addEventListener('keydown', (event) => {
      if (event.key !== 'Enter' || event.shiftKey || event.isComposing) return
      event.preventDefault()
      this.#typed()
    })
    // What is typed here is no answer of the form around it.
    this.#box.addEventListener('input', (event) => {
      event.stopPropagation()
      this.#touched()
      void this.#suggest()
    })
    this.element = el(
      doc,
      'div',
      { class: 'talk' },
      this.#state,
      this.#log,
      this.#choices,
      this.#offers,
      el(doc, 'div', { class: 'say' }, this.#box, ...(files ? this.#adding() : []), send),
    )
    this.#kept = this.#read()
  }

  #read(): Kept | null {
    try {
      return read(this.drawing.around.memo('talk') ?? 'null') as Kept | null
    } catch {
      return null
    }
  }

  #keep(): void {
    this.drawing.around.memo('talk', written(this.#kept))
  }

  /** Begins when somebody looks at it; from then on it looks for what is new. */
  watch(): void {
    const view = this.drawing.page.defaultView ?? window
    const seen = new view.IntersectionObserver((entries) => {
      if (!entries.some((one) => one.isIntersecting)) return
      void this.#open()
      if (this.#begun) this.#readAll()
    })
    seen.observe(this.element)
    this.drawing.page.addEventListener('visibilitychange', () => this.#soon(0))
    if (this.#kept) this.#soon(1000)
  }

  get #visible(): boolean {
    return this.element.isConnected && this.element.offsetParent !== null && !this.drawing.page.hidden
  }

  async #open(): Promise<void> {
    if (this.#begun) return
    this.#begun = true
    this.#lively = performance.now()
    const known = this.#kept && (await this.#ask(true))
    if (!known) await this.#begin()
    this.#count(0)
    void this.#flush()
    this.#soon(QUICK)
  }

  async #begin(): Promise<void> {
    const { drawing } = this
    try {
      const answer = await drawing.actions.post('talks', beginning(drawing))
      if (!answer.ok) throw new Error(String(answer.status))
      const said = (await answer.json()) as TalkNow & { where: string }
      this.#kept = { where: said.where, seen: 0, out: this.#kept?.out ?? [] }
      this.#after = 0
      this.#log.replaceChildren()
      this.#show(said)
      this.#keep()
    } catch {
      this.#begun = false
      this.#say(say(this.drawing, 'waits'))
      setTimeout(() => this.#visible && void this.#open(), 5000)
    }
  }

  /** Asks for what is new; false where the conversation is over. */
  async #ask(whole = false): Promise<boolean> {
    const kept = this.#kept
    if (!kept) return false
    const after = whole ? 0 : this.#after
    try {
      const url = `${this.drawing.around.base}${kept.where}?after=${after}${whole ? '&whole=1' : ''}`
      const answer = await fetch(url, { credentials: 'omit' })
      if (answer.status === 404) return false
      if (!answer.ok) return true
      if (whole) this.#log.replaceChildren()
      if (whole) this.#after = 0
      this.#show((await answer.json()) as TalkNow)
      if (whole) for (const one of kept.out) this.#pending(one)
    } catch {
      // Asked again by and by.
    }
    return true
  }

  #soon(wait: number): void {
    clearTimeout(this.#timer)
    const quick = performance.now() - this.#lively < LIVELY
    const pause = wait || (this.#visible ? (quick ? QUICK : SLOW) : FOLDED)
    this.#timer = window.setTimeout(() => void this.#look(), pause)
  }

  async #look(): Promise<void> {
    // Not at all in a tab that nobody sees.
    if (this.drawing.page.hidden || !this.#kept || !this.element.isConnected) return
    const there = await this.#ask()
    if (!there && this.#begun) await this.#begin()
    this.#soon(0)
  }

  #show(said: TalkNow): void {
    const fresh = said.messages.filter((one) => one.n > this.#after)
    for (const one of fresh) {
      this.#after = Math.max(this.#after, one.n)
      this.#line(
        one.from,
        one.text,
        one.from === 'us' ? (one.script ? '' : (one.who?.name ?? '')) : '',
        one.file,
      )
    }
    if (fresh.length) this.#touched()
    if (said.choices) this.#offer(said.choices, said.asks ?? null)
    const says =
      said.says && said.situation !== 'open'
        ? [said.says.title, said.says.text].filter(Boolean).join('. ').replace('..', '.')
        : ''
    if (said.typing) this.#say(say(this.drawing, 'writing'))
    else if (said.says !== undefined)
      this.#say(says || (said.situation === 'open' ? say(this.drawing, 'here') : ''))
    else if (this.#state.textContent === say(this.drawing, 'writing')) this.#say('')
    const seen = this.#kept?.seen ?? 0
    const unseen = fresh.filter((one) => one.n > seen && one.from === 'us' && !one.script).length
    if (this.#visible) this.#readAll()
    else if (unseen) this.#count(unseen)
  }

  /** What stands there is before somebody's eyes: none of it waits to be read. */
  #readAll(): void {
    this.#count(0)
    if (!this.#kept || this.#kept.seen >= this.#after) return
    this.#kept.seen = this.#after
    this.#keep()
  }

  /** Questions & answers that are much like what is being typed. */
  async #suggest(): Promise<void> {
    const { questions = [] } = await extrasOf(this.drawing).catch((): Extras => ({}))
    const hits = this.#asks === 'email' || this.#asks === 'phone' ? [] : offered(questions, this.#box.value)
    const ids = hits.map((one) => one.id).join()
    if (this.#offers.dataset.ids === ids) return
    this.#offers.dataset.ids = ids
    this.#offers.hidden = !hits.length
    this.#offers.replaceChildren(
      el(this.drawing.page, 'p', { class: 'quiet' }, say(this.drawing, 'one_of_these')),
      ...hits.map((one) => answered(this.drawing, one, true)),
    )
  }

  /** Something is said or being written; where the visitor takes part in it, nothing else comes over it. */
  #touched(): void {
    this.#lively = performance.now()
    if (this.#visible && (this.#after > 1 || this.#box.value)) inUse(this.drawing.host)
  }

  #say(words: string): void {
    this.#state.textContent = words
    this.#state.hidden = !words
  }

  #line(from: string, text: string, who: string, file?: FileSaid): HTMLElement {
    const { page: doc } = this.drawing
    const row = el(doc, 'li', { class: from })
    if (who) row.append(el(doc, 'small', {}, who))
    row.append(el(doc, 'span', {}, file ? this.#link(file) : text))
    this.#log.append(row)
    this.#log.scrollTop = this.#log.scrollHeight
    return row
  }

  /** A file by its name, with the picture that it is. */
  #link({ name, href, picture }: FileSaid): HTMLElement {
    const { page: doc } = this.drawing
    const whole = this.drawing.around.base + href
    const seen = picture ? [el(doc, 'img', { src: whole, alt: '' })] : []
    for (const one of seen) one.addEventListener('load', () => (this.#log.scrollTop = this.#log.scrollHeight))
    return el(doc, 'a', { href: whole, target: '_blank', rel: 'noopener' }, ...seen, name)
  }

  /** A button to add a picture or PDF. */
  #adding(): HTMLElement[] {
    const { page: doc } = this.drawing
    const field = el(doc, 'input', { type: 'file', accept: 'image/*,application/pdf', hidden: '' })
    const add = el(
      doc,
      'button',
      { class: 'button plain', type: 'button', 'aria-label': say(this.drawing, 'add') },
      '+',
    )
    add.addEventListener('click', () => field.click())
    // What is chosen here is no answer of the form around it.
    field.addEventListener('input', (event) => event.stopPropagation())
    field.addEventListener('change', (event) => {
      event.stopPropagation()
      const file = field.files?.[0]
      field.value = ''
      if (file) void this.#give(file)
    })
    return [field, add]
  }

  /** Sent at once, with what waits before it first: a file is not kept in the browser. */
  async #give(file: File): Promise<void> {
    const kept = this.#kept
    if (!kept) return
    const { name } = file
    if (file.size > MOST_FILE) return this.#say(say(this.drawing, 'too_large', { name }))
    this.drawing.actions.started()
    // What was said before it goes first, and what is said after it waits for it.
    void this.#flush()
    await this.#inTurn(() => this.#sendFile(kept, file))
    void this.#flush()
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.#turn.then(work)
    this.#turn = done.catch(() => undefined)
    return done
  }

  async #sendFile(kept: Kept, file: File): Promise<void> {
    const { name } = file
    this.#say(say(this.drawing, 'sending', { name }))
    const url = `${this.drawing.around.base}${kept.where}/files?id=${randomId()}&name=${encodeURIComponent(name)}`
    try {
      const answer = await fetch(url, {
        method: 'POST',
        body: new Blob([file], { type: 'text/plain' }),
        credentials: 'omit',
      })
      const said = (await answer.json()) as TalkNow & { errors?: { message: string }[]; title?: string }
      this.#say('')
      if (answer.ok) this.#show(said)
      else this.#say(said.errors?.[0]?.message ?? said.title ?? say(this.drawing, 'not_sent'))
      this.#soon(QUICK)
    } catch {
      this.#say(say(this.drawing, 'try_again', { name }))
    }
  }

  /** How many answers wait to be read, on the button that opens it. */
  #count(more: number): void {
    const face = this.drawing.root.querySelector<HTMLElement>('.face')
    if (!face) return
    const count = more ? Number(face.dataset.count ?? 0) + more : 0
    if (count) {
      face.dataset.count = String(count)
      face.setAttribute('aria-description', say(this.drawing, 'unread', { count }))
    } else {
      delete face.dataset.count
      face.removeAttribute('aria-description')
    }
  }

  #offer(choices: { id: string; label: string }[], asks: string | null): void {
    const { page: doc } = this.drawing
    this.#asks = asks
    const hint = asks && HINTS[asks] ? say(this.drawing, HINTS[asks]) : this.hint
    this.#box.placeholder = hint
    this.#box.setAttribute('aria-label', hint)
    this.#box.setAttribute('inputmode', asks === 'email' ? 'email' : asks === 'phone' ? 'tel' : 'text')
    this.#choices.replaceChildren(
      ...choices.map(({ id, label }) => {
        const made = el(doc, 'button', { class: 'button plain', type: 'button' }, label)
        made.addEventListener('click', () => this.#put({ id: randomId(), choice: id, shown: label }))
        return made
      }),
    )
  }

  #typed(): void {
    const text = this.#box.value.trim()
    if (!text) return
    if (text.length > MOST_TEXT) return this.#say(say(this.drawing, 'too_long'))
    this.#box.value = ''
    void this.#suggest()
    const address = this.#asks === 'email' || this.#asks === 'phone'
    this.#put({ id: randomId(), ...(address ? { address: { email: text } } : { text }), shown: text })
  }

  /** Kept first, then sent, in order. */
  #put(one: Out): void {
    if (!this.#kept) return
    this.#choices.replaceChildren()
    this.#kept.out.push(one)
    this.#keep()
    this.#pending(one)
    this.drawing.actions.started()
    void this.#flush()
  }

  #pending(one: Out): void {
    this.#line('them', one.shown, '').dataset.out = one.id
  }

  #flush(): Promise<void> {
    if (this.#busy || !this.#kept) return Promise.resolve()
    this.#busy = true
    return this.#inTurn(async () => {
      try {
        while (this.#kept?.out.length) if (!(await this.#sendFirst(this.#kept))) break
      } finally {
        this.#busy = false
      }
    })
  }

  /** Sends the first of what waits; false where it has to be tried again later. */
  async #sendFirst(kept: Kept): Promise<boolean> {
    const one = kept.out[0]
    if (!one) return false
    const body = { ...one, shown: undefined }
    try {
      const answer = await fetch(`${this.drawing.around.base}${kept.where}/messages`, {
        method: 'POST',
        body: written(body),
        credentials: 'omit',
      })
      if (answer.status >= 500 || answer.status === 429) throw new Error(String(answer.status))
      if (answer.status === 404) {
        await this.#begin()
        return this.#kept !== kept
      }
      kept.out.shift()
      this.#log.querySelector(`[data-out="${one.id}"]`)?.remove()
      this.#tries = 0
      if (answer.ok) {
        const said = (await answer.json()) as TalkNow
        this.#show(said)
        if (said.goal) this.drawing.actions.goal()
      } else {
        const { errors } = (await answer.json()) as { errors?: { message: string }[] }
        this.#say(errors?.[0]?.message ?? say(this.drawing, 'not_sent'))
        // What could not be taken is there to be changed.
        if (!one.choice) this.#box.value ||= one.shown
      }
      this.#keep()
      this.#soon(QUICK)
      return true
    } catch {
      this.#say(say(this.drawing, 'kept_here'))
      const pause = PAUSES[Math.min(this.#tries++, PAUSES.length - 1)]
      setTimeout(() => void this.#flush(), pause)
      return false
    }
  }
}

/** A conversation; on the stage its first words, so that the owner sees how it begins. */
export const talk: Maker<'talk'> = (drawing, part) => {
  const made = new Conversation(drawing, part.hint, part.files)
  if (drawing.mode === 'stage') {
    const { page: doc } = drawing
    const first = part.script.turns.find((one) => one.id === part.script.start)
    const words = (line: readonly (string | { slot: string })[]): string =>
      line.map((run) => (typeof run === 'string' ? run : '…')).join('')
    made.element
      .querySelector('.said-log')
      ?.append(
        ...(first?.says ?? []).map((line) =>
          el(doc, 'li', { class: 'us' }, el(doc, 'span', {}, words(line))),
        ),
      )
    made.element
      .querySelector('.choices')
      ?.append(...(first?.choices ?? []).map((one) => el(doc, 'span', { class: 'button plain' }, one.label)))
  } else made.watch()
  return { element: made.element }
}
