import { el } from '../render/dom'
import type { Shown } from '../world'
import { say } from './words'

/** Offers another address instead of the one that was typed; it is taken by a click, never by itself. */
export function offer(shown: Shown, email: string): void {
  const { drawing, last } = shown
  const parts = shown.entry.document.steps.flatMap((step) => step.parts)
  const field = parts.find((part) => part.kind === 'field' && part.input === 'email')
  const name = field?.kind === 'field' ? field.name : 'email'
  const take = el(
    drawing.page,
    'button',
    { class: 'button plain', type: 'button' },
    say(drawing, 'use', { email }),
  )
  take.addEventListener('click', () => {
    take.setAttribute('aria-disabled', 'true')
    const values = { ...last.values, answers: { ...last.values.answers, [name]: email } }
    void shown.submit(last.step, values, '', last.id).then((sent) => {
      if (sent.kind === 'taken') drawing.notice(say(drawing, 'write', { email }))
      else drawing.settle(sent)
    })
  })
  drawing.notice(say(drawing, 'mean', { email }), take)
}
