import { el } from '../render/dom'
import type { Drawing } from '../render/drawing'
import type { Feature } from '../render/feature'
import { backdropArt, behindCard, loadFonts, paintMore } from './art'

const PLACED = ['above', 'beside', 'behind']

/** Fonts, colours and what is drawn behind the card. */
export const painting = (drawing: Drawing): Feature => {
  const { around, host, page } = drawing
  return {
    begin: () => {
      const { behind, look } = drawing
      loadFonts(look, around.base, page)
      if (behind) backdropArt(behind, page, around.base, look)
    },
    painted: () => paintMore(host, drawing.look),
  }
}

/** Pictures may stand around the form; parts of one row stand side by side. */
export const laidOut = (drawing: Drawing): Feature => {
  const { around, page } = drawing
  let placed: HTMLElement[] = []
  return {
    puts: (form, part, element) => {
      if (part.kind === 'picture' && PLACED.includes(part.place)) return !!placed.push(element)
      if (!part.row) return false
      let row = form.lastElementChild
      if (row?.getAttribute('data-row') !== part.row) {
        row = el(page, 'div', { class: 'row', 'data-row': part.row })
        form.append(row)
      }
      element.style.setProperty('--share', String(part.share))
      row.append(element)
      return true
    },
    drawn: () => {
      const { card, look } = drawing
      const behind = behindCard(page, around.base, look)
      const beside = placed.some((one) => one.classList.contains('beside'))
      card.classList.toggle('beside-it', beside)
      card.prepend(...(behind ? [behind] : []), ...placed)
      placed = []
    },
  }
}

/** The cross as its look says: where it stands, and a word instead. */
export const crossing = (drawing: Drawing): Feature => ({
  drawn: () => {
    const { card, host, look, view } = drawing
    const { cross } = look
    const made = card.querySelector<HTMLElement>('.cross')
    if (!made) return
    made.classList.toggle('at-start', cross.place === 'start')
    card.classList.toggle('starts', cross.place === 'start')
    // Words beside it keep clear of it, however wide its own word is; under a picture they have the whole line.
    const sizes = new view.ResizeObserver(() => {
      const above = card.querySelector<HTMLElement>('.above')
      const beside = (above?.offsetHeight ?? 0) < made.offsetTop + made.offsetHeight
      host.style.setProperty('--clear', `${beside ? made.offsetWidth - 4 : 0}px`)
    })
    sizes.observe(made)
    sizes.observe(card)
    card.classList.toggle('worded', cross.style === 'word')
    if (cross.style !== 'word') return
    made.textContent = cross.word
    made.setAttribute('aria-label', cross.word)
  },
})
