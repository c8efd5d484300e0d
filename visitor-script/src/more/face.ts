import { el, pictureUrl, sign } from '../render/dom'
import type { Drawing } from '../render/drawing'
import { signs } from './reaching'
import { say } from './words'

const VISIT = 30 * 60_000 // milliseconds without a page end a visit
const MOST_IN_A_STRIP = 4
const MOST_NUDGES = 2 // in a visit

/** What stands on the button: its picture or sign, and its words. */
export function onTheFace(drawing: Drawing, label: string): (Node | string)[] {
  const { page: doc, around } = drawing
  const { face } = drawing.document
  const drawn = face.picture
    ? el(doc, 'img', {
        class: face.fills ? 'fills' : '',
        src: pictureUrl(around.base, face.picture, 480),
        alt: '',
      })
    : sign(doc, face.sign)
  return [drawn, el(doc, 'span', {}, label)].filter((one) => one !== null)
}

/** Its shape and size. */
export function shaped(drawing: Drawing, face: HTMLElement): void {
  const { shape, size } = drawing.document.face
  face.classList.add(shape)
  // At most a quarter of the screen's short side.
  face.style.setProperty('--face', `min(${size}px,25vmin)`)
}

/** Which ways the first step offers, for a stack of signs or a strip. */
function offered(drawing: Drawing): string[] | 'all' {
  const part = drawing.document.steps[0]?.parts.find((one) => one.kind === 'channels')
  return part?.kind === 'channels' ? (part.channels as string[] | 'all') : 'all'
}

/** Round signs above the button; a click on it shows them and folds them. */
export function stack(drawing: Drawing, face: HTMLElement): HTMLElement {
  const { page: doc } = drawing
  const list = el(doc, 'ul', { class: 'ways signs stack' }, ...signs(drawing, offered(drawing)))
  list.hidden = drawing.mode !== 'stage'
  face.addEventListener('click', () => {
    if (drawing.mode === 'stage') return
    list.hidden = !list.hidden
    face.setAttribute('aria-expanded', String(!list.hidden))
    if (!list.hidden) drawing.actions.clicked()
  })
  return list
}

/** On phones: two to four ways along the foot. */
export function strip(drawing: Drawing): HTMLElement {
  const { page: doc } = drawing
  return el(
    doc,
    'ul',
    { class: 'strip' },
    ...signs(drawing, offered(drawing), true).slice(0, MOST_IN_A_STRIP),
  )
}

/**
 * A greeting beside the button after some seconds, once a visit; it can be closed, and a click on it opens.
 */
export function greet(drawing: Drawing, open: () => void): HTMLElement | null {
  const { page: doc, around } = drawing
  const { greeting } = drawing.document.face
  if (!greeting) return null
  const words = el(doc, 'button', { class: 'words', type: 'button' }, el(doc, 'span', {}, greeting.text))
  if (greeting.picture)
    words.prepend(
      el(doc, 'img', { class: 'who', src: pictureUrl(around.base, greeting.picture, 480), alt: '' }),
    )
  const close = el(
    doc,
    'button',
    { class: 'shut', type: 'button', 'aria-label': say(drawing, 'close_greeting') },
    '×',
  )
  const made = el(doc, 'div', { class: 'greet', role: 'status' }, words, close)
  made.hidden = drawing.mode !== 'stage'
  const away = (): void => {
    made.hidden = true
  }
  close.addEventListener('click', away)
  words.addEventListener('click', () => {
    if (drawing.mode === 'stage') return
    away()
    open()
  })
  if (drawing.mode !== 'live') return made
  const last = Number(around.memo('greeted') ?? 0)
  const seen = around.now() - last < VISIT
  if (seen) around.memo('greeted', String(around.now()))
  else
    setTimeout(() => {
      const folded = drawing.root.querySelector<HTMLElement>('.card')?.hidden ?? true
      if (!made.isConnected || !folded) return
      made.hidden = false
      around.memo('greeted', String(around.now()))
    }, greeting.after * 1000)
  return made
}

/** How often it was nudged in this visit. */
function nudged({ around }: Drawing): number {
  const [last = 0, often = 0] = (around.memo('nudged') ?? '').split(' ').map(Number)
  return around.now() - last < VISIT ? often : 0
}

/**
 * The button moves a little while nothing of it is open; twice a visit, and the style moves nothing for those
 * who want none.
 */
export function nudge(drawing: Drawing, face: HTMLElement): void {
  const { around, root } = drawing
  const { nudge: after } = drawing.document.face
  if (after === null || drawing.mode !== 'live') return
  const keep = (often: number): string | null => around.memo('nudged', `${around.now()} ${often}`)
  keep(nudged(drawing))
  const move = (): void => {
    const often = nudged(drawing)
    if (!face.isConnected || often >= MOST_NUDGES) return
    const open = root.querySelector(
      '.dock>.card:not([hidden]),.dock>.greet:not([hidden]),.dock>.stack:not([hidden])',
    )
    if (!open) {
      face.classList.remove('nudged')
      requestAnimationFrame(() => face.classList.add('nudged'))
      keep(often + 1)
    }
    setTimeout(move, after * 1000)
  }
  setTimeout(move, after * 1000)
}
