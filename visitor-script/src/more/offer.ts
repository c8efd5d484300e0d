import { el } from '../render/dom'
import type { Drawing } from '../render/draw'

/** Offers another address instead of the one that was typed; it is taken by a click, never by itself. */
export function offer(drawing: Drawing, email: string): void {
  const take = el(drawing.page, 'button', { class: 'button plain', type: 'button' }, `Use ${email}`)
  take.addEventListener('click', () => {
    take.setAttribute('aria-disabled', 'true')
    void drawing.actions.correct(email).then((sent) => {
      if (sent.kind === 'taken') drawing.notice(`Thank you. We write to ${email}.`)
      else drawing.settle(sent)
    })
  })
  drawing.notice(`Did you mean ${email}?`, take)
}
