import { el } from '../render/dom'
import type { Drawing } from '../render/drawing'
import type { Feature } from '../render/feature'
import { greet, nudge, onTheFace, shaped, stack, strip } from './face'
import { refreshed } from './fresh'
import { inUse } from './in-use'
import { button, gone, wayOf } from './reaching'

/** A button that stands on the page, and the card that it opens. */
export const dock = (drawing: Drawing): Feature => {
  const { document, mode, page, root } = drawing
  if (document.stance !== 'button') return {}
  let face: HTMLElement | null = null

  const clickedFace = (): void => face?.click()
  const made = (card: HTMLElement): HTMLElement => {
    const { does, ...told } = document.face
    const label = (does?.action === 'channel' && wayOf(drawing, does.channel)?.button) || told.label
    const words = onTheFace(drawing, label)
    const own = does
      ? button(drawing, does, 'button face', ...words)
      : el(page, 'button', { class: 'button face', type: 'button', 'aria-expanded': 'false' }, ...words)
    face = own
    const unfolds = !does && told.opens === 'step'
    if (unfolds) own.addEventListener('click', () => unfold(card.hidden))
    shaped(drawing, own)
    card.hidden = mode !== 'stage' || !!does || told.opens === 'signs'
    own.hidden = !!does && gone(drawing, does)
    const greeting = greet(drawing, () => (unfolds ? unfold(true) : clickedFace()))
    const above = !does && told.opens === 'signs' ? [stack(drawing, own)] : []
    nudge(drawing, own)
    return el(page, 'div', { class: 'dock' }, own, ...above, ...(greeting ? [greeting] : []), card)
  }

  const unfold = (open: boolean): void => {
    const { card, host } = drawing
    card.hidden = !open
    inUse(host, open)
    face?.setAttribute('aria-expanded', String(open))
    if (!open) return face?.focus()
    drawing.actions.clicked()
    drawing.heading()?.focus()
    if (!card.querySelector('.ways') || drawing.began) return
    void refreshed().then((anew) => {
      if (anew && !drawing.began) drawing.draw(drawing.step.id)
    })
  }

  return {
    begin: () => {
      if (mode === 'inline') return
      const docked = made(drawing.card)
      docked.setAttribute('data-place', drawing.look.place)
      if (document.face.strip) {
        root.append(strip(drawing))
        docked.classList.add('with-strip')
      }
      root.append(docked)
    },
    painted: () => root.querySelector('.dock')?.setAttribute('data-place', drawing.look.place),
    unfolds: (open) => {
      unfold(open)
      return true
    },
    // Its card only folds.
    leaves: () => {
      if (mode !== 'live') return false
      unfold(false)
      return true
    },
  }
}
