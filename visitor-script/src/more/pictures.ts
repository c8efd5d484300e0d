import { el } from '../render/dom'
import type { Drawing } from '../render/drawing'
import type { Made, PartOf } from '../render/types'
import { art } from './art'
import { codeOf } from './given'
import { say } from './words'

export function picture(drawing: Drawing, part: PartOf<'picture'>): Made {
  const { page: doc, around } = drawing
  const className = part.place === 'inline' ? 'inline-art' : part.place
  const box = part.asset
    ? art(doc, around.base, part, className, part.description)
    : el(doc, 'div', { class: `art ${className}`, 'data-empty': '' })
  box.classList.toggle('whole', part.whole)
  if (part.height) box.style.setProperty(part.place === 'inline' ? 'height' : '--art', `${part.height}px`)
  if (part.follows) {
    box.style.cursor = 'pointer'
    box.addEventListener('click', () => drawing.card.querySelector<HTMLElement>('.button')?.click())
  }
  return { element: box }
}

export function code(drawing: Drawing, part: PartOf<'code'>): Made {
  const { page: doc } = drawing
  const given = codeOf(drawing)
  const output = el(doc, 'output', {}, given)
  const copy = el(doc, 'button', { class: 'button plain', type: 'button' }, say(drawing, 'copy'))
  copy.addEventListener('click', () => {
    void navigator.clipboard
      ?.writeText(output.textContent ?? '')
      .then(() => (copy.textContent = say(drawing, 'copied')))
  })
  const box = el(doc, 'div', { class: 'code' }, output, copy)
  const made = el(
    doc,
    'div',
    { 'data-code': '' },
    el(doc, 'span', { 'data-words': 'label' }, part.label),
    box,
  )
  made.hidden = !given
  return { element: made }
}
