import { el } from '../render/dom'
import type { Drawing } from '../render/drawing'
import type { Feature } from '../render/feature'
import type { Extras, Part } from '../render/types'
import { say } from './words'

const codes = new WeakMap<Drawing, string>()
const asked = new WeakMap<Drawing, Promise<Extras>>()

/** What a drawing was told besides its document. */
export const extrasOf = (drawing: Drawing): Promise<Extras> => asked.get(drawing) ?? Promise.resolve({})

/** The code that was given here, if one was. */
export const codeOf = (drawing: Drawing): string => codes.get(drawing) ?? ''

/** What is given for an answer, or stands there without one: codes, files, hours, questions, free times. */
export const given = (drawing: Drawing): Feature => {
  const { document, mode } = drawing
  const wants = (part: Part): boolean =>
    part.kind === 'hours' ||
    part.kind === 'questions' ||
    part.kind === 'talk' ||
    (part.kind === 'field' && part.input === 'slot')
  let none = false
  const show = (code: string): void => {
    none = false
    codes.set(drawing, code)
    for (const place of drawing.card.querySelectorAll<HTMLElement>('[data-code]')) {
      place.hidden = false
      place.querySelector('.none')?.remove()
      place.querySelector<HTMLElement>('.code')?.removeAttribute('hidden')
      const output = place.querySelector('output')
      if (output) output.textContent = code
    }
  }
  /** What stands beside it may speak of a code: that there is none is said in its place. */
  const tellNone = (): void => {
    for (const place of drawing.card.querySelectorAll<HTMLElement>('[data-code]')) {
      place.hidden = false
      place.querySelector('.code')?.setAttribute('hidden', '')
      if (!place.querySelector('.none'))
        place.append(el(drawing.page, 'p', { class: 'quiet none' }, say(drawing, 'no_code')))
    }
  }
  return {
    begin: () => {
      // A code stands where nothing has to be sent for it.
      const free = !!document.steps[0]?.parts.some((part) => part.kind === 'code')
      if (mode !== 'stage' && !free && !document.steps.some(({ parts }) => parts.some(wants))) return
      const extras = drawing.actions.extras(free)
      asked.set(drawing, extras)
      const told = extras.then(({ code }) => {
        if (code) show(code)
        none = code === null && mode !== 'stage'
        if (none) tellNone()
      })
      void told.catch(() => undefined)
    },
    drawn: () => none && tellNone(),
    settled: ({ code, file }) => {
      if (file) drawing.notice('', el(drawing.page, 'a', { class: 'button', href: file.url }, file.label))
      const known = code ?? codeOf(drawing)
      if (known) show(known)
    },
  }
}
