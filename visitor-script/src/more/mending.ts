import type { Drawing } from '../render/drawing'
import type { Made, Wrong } from '../render/types'
import { stepOf } from './flow'

const watched = new WeakSet<Element>()

/**
 * Shows beside each field what is wrong with it, on the step where it stands; says whether any of them does.
 */
export function mend(drawing: Drawing, errors: Wrong[]): boolean {
  toTheStep(drawing, errors)
  let first: HTMLElement | undefined
  for (const { control, error } of drawing.made) {
    if (!control || !error) continue
    const wrong = errors.find((one) => one.field.endsWith(`.${control.name}`))
    error.hidden = !wrong
    error.textContent = wrong?.message ?? ''
    control.focus.setAttribute('aria-invalid', String(!!wrong))
    if (wrong) {
      control.focus.setAttribute('aria-describedby', error.id)
      first ??= control.focus
    }
  }
  if (drawing.mayFocus()) first?.focus()
  if (!watched.has(drawing.card)) drawing.card.addEventListener('input', () => drawing.made.forEach(mended))
  watched.add(drawing.card)
  return !!first
}

/** Where nothing of what is wrong stands on this step, the step of the first comes back. */
function toTheStep(drawing: Drawing, errors: Wrong[]): void {
  const elsewhere = errors
    .map((one) => stepOf(drawing.document, one.field.split('.').pop() ?? ''))
    .find(Boolean)
  const here = drawing.made.some(
    ({ control }) => control && errors.some((one) => one.field.endsWith(`.${control.name}`)),
  )
  if (elsewhere && !here && elsewhere !== drawing.step.id) drawing.draw(elsewhere)
}

/** Red words go as soon as their field holds. */
function mended({ control, error }: Made): void {
  if (!control || !error || error.hidden) return
  const { focus } = control
  const sound = !('validity' in focus) || (focus as HTMLInputElement).validity.valid
  error.hidden = sound && (!!control.read() || focus.ariaRequired !== 'true')
  focus.setAttribute('aria-invalid', String(!error.hidden))
}
