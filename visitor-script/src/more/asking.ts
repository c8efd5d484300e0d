import { el } from '../render/dom'
import { errorFor } from '../render/parts'
import type { Maker } from '../render/drawing'

/** A question whose choices are buttons; each may lead to a step of its own. */
export const question: Maker<'question'> = (drawing, part) => {
  const { page: doc } = drawing
  const error = errorFor(doc, `f-${part.id}`)
  const buttons = part.options.map((one) => {
    const button = el(doc, 'button', { class: 'button', type: 'button' }, one.label || one.value)
    button.addEventListener('click', () => drawing.choose(part.name, one.value))
    return button
  })
  const title = el(doc, 'h2', { 'data-words': 'text', tabindex: '-1', class: 'medium' }, part.text)
  const group = el(doc, 'div', { class: 'choices', role: 'group', 'aria-label': part.text }, ...buttons)
  return { element: el(doc, 'div', {}, title, group, error), error }
}

/** A score from its least to its most; ten to a row on a wide card. */
export const score: Maker<'score'> = (drawing, part) => {
  const { page: doc } = drawing
  const error = errorFor(doc, `f-${part.id}`)
  let given = ''
  const buttons = Array.from({ length: part.most - part.least + 1 }, (_, at) => {
    const value = String(part.least + at)
    const button = el(doc, 'button', { type: 'button', role: 'radio', 'aria-checked': 'false' }, value)
    button.addEventListener('click', () => {
      mark(value)
      drawing.choose(part.name, value)
    })
    return button
  })
  const mark = (value: string): void => {
    given = value
    for (const one of buttons) one.setAttribute('aria-checked', String(one.textContent === value))
  }
  const title = el(doc, 'h2', { 'data-words': 'text', tabindex: '-1', class: 'medium' }, part.text)
  const scale = el(doc, 'div', { class: 'scores', role: 'radiogroup', 'aria-label': part.text }, ...buttons)
  const ends = el(
    doc,
    'div',
    { class: 'ends' },
    el(doc, 'span', {}, part.least_label),
    el(doc, 'span', {}, part.most_label),
  )
  return {
    element: el(doc, 'div', {}, title, scale, ends, error),
    error,
    control: {
      name: part.name,
      consent: false,
      focus: buttons[0] ?? scale,
      read: () => given,
      write: (value) => mark(String(value)),
    },
  }
}
