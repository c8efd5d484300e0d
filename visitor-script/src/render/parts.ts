import { el } from './dom'
import type { Part } from './types'

const TYPES = { email: 'email', phone: 'tel', text: 'text', long: '' } as const
const FILLED_BY = { email: 'email', phone: 'tel', text: '', long: '' } as const

export interface Made {
  element: HTMLElement
  /** The element that a field's value or tick lives in. */
  control?: HTMLInputElement | HTMLTextAreaElement
  error?: HTMLElement
}

function field(doc: Document, part: Extract<Part, { kind: 'field' }>): Made {
  const id = `f-${part.id}`
  const control = part.input === 'long' ? el(doc, 'textarea', { rows: '4' }) : el(doc, 'input', { type: TYPES[part.input] })
  control.id = id
  control.name = part.name
  const known = part.name === 'name' ? 'given-name' : FILLED_BY[part.input]
  if (known) control.setAttribute('autocomplete', known)
  if (part.required) control.setAttribute('aria-required', 'true')
  const words = el(doc, 'span', { 'data-words': 'label' }, part.label ?? '')
  const label = el(doc, 'label', { for: id }, words)
  if (!part.required) label.append(' ', el(doc, 'span', { class: 'quiet' }, '(if you like)'))
  const error = el(doc, 'p', { class: 'error', id: `${id}-error`, hidden: '' })
  return { element: el(doc, 'div', { class: 'field' }, label, control, error), control, error }
}

function consent(doc: Document, part: Extract<Part, { kind: 'consent' }>): Made {
  const id = `f-${part.id}`
  const control = el(doc, 'input', { type: 'checkbox', id, name: part.name })
  if (part.required) control.setAttribute('aria-required', 'true')
  const error = el(doc, 'p', { class: 'error', id: `${id}-error`, hidden: '' })
  const words = el(doc, 'span', { 'data-words': 'text' }, part.text ?? '')
  const label = el(doc, 'label', { class: 'tick', for: id }, control, words)
  return { element: el(doc, 'div', { class: 'field' }, label, error), control, error }
}

/** One part as elements; its id stands in `data-part`, its editable words in `data-words`. */
export function makePart(doc: Document, part: Part): Made {
  const made = make(doc, part)
  made.element.setAttribute('data-part', part.id)
  const on = part.on ?? ['desktop', 'phone']
  if (!on.includes('desktop')) made.element.classList.add('not-desktop')
  if (!on.includes('phone')) made.element.classList.add('not-phone')
  return made
}

function make(doc: Document, part: Part): Made {
  switch (part.kind) {
    case 'headline':
      return { element: el(doc, 'h2', { 'data-words': 'text', tabindex: '-1' }, part.text ?? '') }
    case 'text': {
      const element = el(doc, 'div', { class: 'text', 'data-words': 'html' })
      // Sanitised by the server, which is the only one who writes documents.
      element.innerHTML = part.html ?? ''
      return { element }
    }
    case 'field':
      return field(doc, part)
    case 'consent':
      return consent(doc, part)
    case 'button': {
      const sends = part.does.action === 'send'
      const words = el(doc, 'span', { 'data-words': 'label' }, part.label ?? '')
      return {
        element: el(doc, 'button', { class: sends ? 'button' : 'button plain', type: sends ? 'submit' : 'button' }, words),
      }
    }
    case 'reply':
      return { element: el(doc, 'div', { class: 'reply', hidden: '' }) }
  }
}
