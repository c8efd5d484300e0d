import { extrasOf } from './given'
import { el } from '../render/dom'
import { errorFor, labelFor, textControl } from '../render/parts'
import type { Maker } from '../render/drawing'
import { say } from './words'

/** One of several, in a list. */
export const choice: Maker<'field'> = (drawing, part) => {
  const { page: doc } = drawing
  const id = `f-${part.id}`
  const options = part.options.map((one) => el(doc, 'option', { value: one.value }, one.label || one.value))
  const select = el(
    doc,
    'select',
    { id, name: part.name },
    el(doc, 'option', { value: '' }, part.hint || say(drawing, 'choose')),
    ...options,
  )
  if (part.required) select.setAttribute('aria-required', 'true')
  const error = errorFor(doc, id)
  return {
    element: el(doc, 'div', { class: 'field' }, labelFor(drawing, part), select, error),
    control: textControl(part.name, select),
    error,
  }
}

/** Any of several; kept as lines. */
export const several: Maker<'field'> = (drawing, part) => {
  const { page: doc } = drawing
  const ticks = part.options.map((one) =>
    el(doc, 'input', { type: 'checkbox', value: one.value, name: part.name }),
  )
  const rows = ticks.map((tick, at) => {
    const one = part.options[at]
    return el(doc, 'label', { class: 'option' }, tick, el(doc, 'span', {}, one?.label || one?.value || ''))
  })
  const error = errorFor(doc, `f-${part.id}`)
  const group = el(doc, 'fieldset', { class: 'field' }, labelFor(drawing, part, 'legend'), ...rows, error)
  const first = ticks[0] ?? group
  if (part.required) first.setAttribute('aria-required', 'true')
  return {
    element: group,
    error,
    control: {
      name: part.name,
      consent: false,
      focus: first,
      read: () =>
        ticks
          .filter((tick) => tick.checked)
          .map((tick) => tick.value)
          .join('\n'),
      write: (value) =>
        ticks.forEach((tick) => (tick.checked = String(value).split('\n').includes(tick.value))),
    },
  }
}

/** A time for a call: the day, then the times of that day. */
export const slot: Maker<'field'> = (drawing, part) => {
  const { page: doc } = drawing
  const id = `f-${part.id}`
  const day = el(doc, 'select', { id, 'aria-label': say(drawing, 'day', { label: part.label }) })
  const time = el(doc, 'select', {
    'aria-label': say(drawing, 'time', { label: part.label }),
    name: part.name,
  })
  if (part.required) time.setAttribute('aria-required', 'true')
  const error = errorFor(doc, id)
  const row = el(doc, 'div', { class: 'row' }, day, time)
  let wanted = ''
  void extrasOf(drawing).then((found) => {
    const free = found.slots?.[part.name] ?? []
    const days = [...new Set(free.map((one) => one.day))]
    if (!days.length) day.append(el(doc, 'option', { value: '' }, say(drawing, 'no_time')))
    day.append(...days.map((one) => el(doc, 'option', {}, one)))
    const fill = (): void => {
      const times = free.filter((one) => one.day === day.value)
      time.replaceChildren(...times.map((one) => el(doc, 'option', { value: one.value }, one.time)))
      if (wanted) time.value = wanted
    }
    const known = free.find((one) => one.value === wanted)
    if (known) day.value = known.day
    fill()
    day.addEventListener('change', fill)
  })
  return {
    element: el(doc, 'div', { class: 'field' }, labelFor(drawing, part), row, error),
    error,
    control: {
      name: part.name,
      consent: false,
      focus: time,
      read: () => time.value,
      write: (value) => {
        wanted = String(value)
        time.value = wanted
      },
    },
  }
}
