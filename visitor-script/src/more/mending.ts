import type { Drawing } from '../render/draw'
import type { Made, Wrong } from '../render/types'

const watched = new WeakSet<Element>()

/**
 * Shows beside each field what is wrong with it; says whether any of them stands in the step that is shown.
 */
export function mend(drawing: Drawing, errors: Wrong[]): boolean {
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
  first?.focus()
  if (!watched.has(drawing.card)) drawing.card.addEventListener('input', () => drawing.made.forEach(mended))
  watched.add(drawing.card)
  return !!first
}

/** Red words go as soon as their field holds. */
function mended({ control, error }: Made): void {
  if (!control || !error || error.hidden) return
  const { focus } = control
  const sound = !('validity' in focus) || (focus as HTMLInputElement).validity.valid
  error.hidden = sound && (!!control.read() || focus.ariaRequired !== 'true')
  focus.setAttribute('aria-invalid', String(!error.hidden))
}
