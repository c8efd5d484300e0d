import { el, setMarkup } from './dom'
import type { Drawing, Maker, Makers, Rest } from './drawing'
import type { Control, Does, Made, Part, PartOf, Wrong } from './types'

const TYPES: Record<string, string> = { email: 'email', phone: 'tel', date: 'date' }
const FILLED_BY: Record<string, string> = { email: 'email', phone: 'tel', name: 'given-name' }
export function errorFor(doc: Document, id: string): HTMLElement {
  return el(doc, 'p', { class: 'error', id: `${id}-error`, hidden: '' })
}

export function labelFor(
  { page: doc, words }: Drawing,
  part: PartOf<'field'>,
  tag: 'label' | 'legend' = 'label',
): HTMLElement {
  const label = el(
    doc,
    tag,
    tag === 'label' ? { for: `f-${part.id}` } : {},
    el(doc, 'span', { 'data-words': 'label' }, part.label),
  )
  if (!part.required) label.append(' ', el(doc, 'span', { class: 'quiet' }, words.optional))
  return label
}

export function textControl(
  name: string,
  element: HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement,
): Control {
  return {
    name,
    consent: false,
    focus: element,
    read: () => element.value,
    write: (value) => (element.value = String(value)),
  }
}

function field(drawing: Drawing, part: PartOf<'field'>): Made {
  const more = rest?.more[part.input]
  if (more) return more(drawing, part)
  const { page: doc } = drawing
  const id = `f-${part.id}`
  const input =
    part.input === 'long' ? el(doc, 'textarea') : el(doc, 'input', { type: TYPES[part.input] ?? 'text' })
  input.id = id
  input.name = part.name
  if (part.hint) input.placeholder = part.hint
  if (part.input === 'number') input.inputMode = 'decimal'
  const known = part.name === 'name' ? 'given-name' : FILLED_BY[part.input]
  if (known) input.autocomplete = known as AutoFill
  if (part.required) input.setAttribute('aria-required', 'true')
  const error = errorFor(doc, id)
  const made = el(doc, 'div', { class: 'field' }, labelFor(drawing, part), input, error)
  if (part.input === 'hidden') made.hidden = true
  return { element: made, control: textControl(part.name, input), error }
}

function consent({ page: doc }: Drawing, part: PartOf<'consent'>): Made {
  const id = `f-${part.id}`
  const tick = el(doc, 'input', { type: 'checkbox', id, name: part.name })
  if (part.required) tick.setAttribute('aria-required', 'true')
  const error = errorFor(doc, id)
  const words = el(doc, 'span', { 'data-words': 'text' }, part.text)
  const label = el(doc, 'label', { class: 'tick', for: id }, tick, words)
  const control = {
    name: part.name,
    consent: true,
    focus: tick,
    read: () => tick.checked,
    write: (value: string | boolean) => (tick.checked = value === true),
  }
  return { element: el(doc, 'div', { class: 'field' }, label, error), control, error }
}

/** A button, or a link where a click leads somewhere. */
export function clickable(
  drawing: Drawing,
  does: Does,
  className: string,
  ...words: (Node | string)[]
): HTMLElement {
  const { page: doc } = drawing
  const told = does.action === 'file' && does.href ? drawing.around.base + does.href : does.href
  // Not by what the page says that its own addresses begin with; the console's stage has no address of its
  // own.
  const href = told && new URL(told, location.href).href
  const made = href
    ? el(
        doc,
        'a',
        { class: className, href, ...(does.tab === 'new' ? { target: '_blank', rel: 'noopener' } : {}) },
        ...words,
      )
    : el(doc, 'button', { class: className, type: does.action === 'send' ? 'submit' : 'button' }, ...words)
  if (does.action === 'touchpoint') made.setAttribute('data-opens', does.touchpoint)
  made.addEventListener('click', (event) => drawing.clicked(does, event))
  return made
}

function headline({ page: doc, around }: Drawing, part: PartOf<'headline'>): Made {
  const known = part.known.length > 0 && around.firstName
  const words = known
    ? part.known.map((run) => (typeof run === 'string' ? run : around.firstName)).join('')
    : part.text
  const made = el(
    doc,
    'h2',
    { 'data-words': known ? '' : 'text', tabindex: '-1', class: `${part.size} to-${part.align}` },
    words,
  )
  if (part.colour) made.style.color = part.colour
  return { element: made }
}

function text({ page: doc, around }: Drawing, part: PartOf<'text'>): Made {
  const known = !!part.known && !!around.firstName
  const made = el(doc, 'div', {
    class: `text ${part.size} to-${part.align}`,
    'data-words': known ? '' : 'html',
  })
  // Sanitised by the server, which is the only one who writes documents.
  setMarkup(made, known ? part.known : part.html)
  for (const slot of made.querySelectorAll('[data-slot]')) slot.textContent = around.firstName
  for (const image of made.querySelectorAll('img'))
    image.src = around.base + (image.getAttribute('src') ?? '')
  if (part.colour) made.style.color = part.colour
  return { element: made }
}

const BASE: Makers = {
  headline,
  text,
  field,
  consent,
  button: (drawing, part) => ({
    element: clickable(
      drawing,
      part.does,
      part.style === 'plain' || part.does.action === 'close' ? 'button plain' : 'button',
      el(drawing.page, 'span', { 'data-words': 'label' }, part.label),
    ),
  }),
  reply: ({ page: doc }) => ({ element: el(doc, 'div', { class: 'reply', hidden: '' }) }),
}

let rest: Rest | null = null

export function register(more: Rest): void {
  rest = more
}

export const moreCss = (): string => rest?.css ?? ''
export const mendParts = (drawing: Drawing, errors: Wrong[]): boolean => !!rest?.mend(drawing, errors)

/** One part as elements; its id stands in `data-part`, its editable words in `data-words`. */
export function makePart(drawing: Drawing, part: Part): Made {
  const make = (rest?.makers[part.kind] ?? BASE[part.kind]) as Maker | undefined
  const made: Made = make ? make(drawing, part as never) : { element: el(drawing.page, 'div') }
  made.element.setAttribute('data-part', part.id)
  if (!part.on.includes('desktop')) made.element.classList.add('not-desktop')
  if (!part.on.includes('phone')) made.element.classList.add('not-phone')
  return made
}
