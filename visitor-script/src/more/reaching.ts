import { ICONS } from './icons'
import { el, pictureUrl, setMarkup } from '../render/dom'
import type { Drawing, Maker } from '../render/drawing'
import { clickable } from '../render/parts'
import type { Does, Way } from '../render/types'
import { say } from './words'

function icon(drawing: Drawing, way: Way): HTMLElement {
  const { page: doc, around } = drawing
  const holder = el(doc, 'span', { class: 'icon', 'aria-hidden': 'true' })
  const path = ICONS[way.icon]
  if (path)
    setMarkup(
      holder,
      `<svg viewBox="0 0 24 24" width="22" height="22" fill="none" stroke="currentColor" stroke-width="1.8" stroke-linecap="round" stroke-linejoin="round"><path d="${path}"/></svg>`,
    )
  else holder.append(el(doc, 'img', { src: pictureUrl(around.base, way.icon, 480), alt: '' }))
  if (way.colour) holder.style.setProperty('--way', way.colour)
  return holder
}

export const wayOf = (drawing: Drawing, id: string): Way | undefined => drawing.around.ways()?.[id]

const took = (drawing: Drawing, id: string, way: Way, event: Event): void => {
  if (drawing.mode === 'stage') return event.preventDefault()
  drawing.actions.clicked(id)
  if (way.goal) drawing.actions.goal()
}

/** The link of a way; in a tab of its own where it leads to a page and the owner wants that. */
type To = { href: string; by?: Record<string, string> | undefined }

function link(
  drawing: Drawing,
  id: string,
  way: Way,
  to: To,
  className: string,
  ...inside: (Node | string)[]
): HTMLElement {
  const own = to.by?.[drawing.around.entry.id] || to.href
  const tab: Record<string, string> =
    way.opens !== 'same' && /^https?:/.test(own) ? { target: '_blank', rel: 'noopener' } : {}
  const made = el(drawing.page, 'a', { class: className, href: own, ...tab }, ...inside)
  made.addEventListener('click', (event) => took(drawing, id, way, event))
  return made
}

/** Asks for the visitor's own words first; they see them, and then they go. */
function asking(drawing: Drawing, id: string, way: Way): HTMLElement {
  const { page: doc } = drawing
  const box = el(doc, 'textarea', {
    rows: '3',
    maxlength: '1000',
    'aria-label': say(drawing, 'say_to', { label: way.label }),
  })
  box.value = way.text ?? ''
  const go = link(drawing, id, way, way, 'button', say(drawing, 'go_on', { label: way.label }))
  const aim = (): void =>
    go.setAttribute(
      'href',
      (way.asks ?? way.href).replace('intavo-words', encodeURIComponent(box.value.trim())),
    )
  box.addEventListener('input', aim)
  aim()
  return el(doc, 'div', { class: 'asking' }, box, go)
}

/** Those behind a way, to be chosen; who cannot be reached just now is shown so. */
function people(drawing: Drawing, id: string, way: Way): HTMLElement {
  const { page: doc, around } = drawing
  const rows = way.people.map((one) => {
    const face = one.picture
      ? el(doc, 'img', { class: 'who', src: pictureUrl(around.base, one.picture, 480), alt: '' })
      : el(doc, 'span', { class: 'who', 'aria-hidden': 'true' }, one.name.slice(0, 1))
    const words = el(
      doc,
      'span',
      { class: 'said' },
      el(doc, 'b', {}, one.name),
      el(doc, 'small', {}, one.reachable ? one.words : say(drawing, 'away')),
    )
    const row = link(
      drawing,
      id,
      way,
      one.href ? one : way,
      one.reachable ? 'person' : 'person away',
      face,
      words,
    )
    return el(doc, 'li', {}, row)
  })
  return el(doc, 'ul', { class: 'people' }, ...rows)
}

/** What a way unfolds before it leads anywhere, if it does. */
function inner(drawing: Drawing, id: string, way: Way, withPeople: boolean): HTMLElement | null {
  if (withPeople && way.people.length && way.pick === 'visitor') return people(drawing, id, way)
  return way.opens === 'ask-first' ? asking(drawing, id, way) : null
}

/** Above a strip there is room for what a closed way says, and for who is meant. */
function over(drawing: Drawing, id: string, way: Way, more: string): HTMLElement | null {
  const { page: doc } = drawing
  const asks = inner(drawing, id, way, true)
  if (!asks && (!more || way.situation === 'open')) return null
  const go = asks ?? link(drawing, id, way, way, 'button', say(drawing, 'go_on', { label: way.label }))
  return el(doc, 'div', { class: 'over' }, ...(more ? [el(doc, 'p', {}, more)] : []), go)
}

/** What is said of a way that is not open just now. */
const saidOf = ({ says }: Way): string =>
  says ? [says.title, says.text].filter(Boolean).join('. ').replace('..', '.') : ''

/** `above`: what is said above them all already. */
function one(
  drawing: Drawing,
  id: string,
  way: Way,
  as: string,
  withPeople: boolean,
  above = '',
): HTMLElement {
  const { page: doc } = drawing
  const said = saidOf(way)
  const more = said === above ? '' : said
  const words = el(doc, 'span', { class: 'said' }, el(doc, 'b', {}, way.button))
  if (more && as !== 'signs' && as !== 'strip') words.append(el(doc, 'small', {}, more))
  const inside = as === 'signs' ? [icon(drawing, way)] : [icon(drawing, way), words]
  const holder = el(doc, 'li', { class: way.situation === 'open' ? 'way' : 'way closed' })
  const unfolds = as === 'strip' ? over(drawing, id, way, more) : inner(drawing, id, way, withPeople)
  let face: HTMLElement
  if (unfolds) {
    unfolds.hidden = true
    face = el(doc, 'button', { type: 'button', class: 'to', 'aria-expanded': 'false' }, ...inside)
    face.addEventListener('click', () => {
      for (const other of holder.parentElement?.querySelectorAll<HTMLElement>('.over') ?? [])
        if (other !== unfolds) {
          other.hidden = true
          other.previousElementSibling?.setAttribute('aria-expanded', 'false')
        }
      unfolds.hidden = !unfolds.hidden
      face.setAttribute('aria-expanded', String(!unfolds.hidden))
    })
    holder.append(face, unfolds)
  } else holder.append((face = link(drawing, id, way, way, 'to', ...inside)))
  if (as === 'signs') {
    face.setAttribute('aria-label', more ? `${way.button}. ${more}` : way.button)
    face.title = way.button
  }
  return holder
}

/** The ways that are to be seen, in the owner's order or the part's. */
function shown(drawing: Drawing, wanted: string[] | 'all'): [string, Way][] {
  const ways = drawing.around.ways() ?? {}
  const ids = wanted === 'all' ? Object.keys(ways) : wanted
  return ids.flatMap((id) =>
    ways[id] && !ways[id].hidden && ways[id].href ? [[id, ways[id]] as [string, Way]] : [],
  )
}

/** Round signs, or (in a strip) signs with their words below. */
export function signs(drawing: Drawing, wanted: string[] | 'all', words = false): HTMLElement[] {
  return shown(drawing, wanted).map(([id, way]) => one(drawing, id, way, words ? 'strip' : 'signs', false))
}

export const channels: Maker<'channels'> = (drawing, part) => {
  const { page: doc } = drawing
  const found = shown(drawing, part.channels as string[] | 'all')
  const said = found.map(([, way]) => saidOf(way)).filter(Boolean)
  // What several would say alike is said once.
  const above = part.as === 'signs' ? '' : (said.find((words, at) => said.indexOf(words) < at) ?? '')
  const rows = found.map(([id, way]) => one(drawing, id, way, part.as, part.people, above))
  const list = el(doc, 'ul', { class: `ways ${part.as}` }, ...rows)
  const made = above ? el(doc, 'div', {}, el(doc, 'p', { class: 'quiet' }, above), list) : list
  if (!rows.length && drawing.mode === 'stage')
    list.append(el(doc, 'li', { class: 'quiet' }, 'Your ways to reach you stand here.'))
  return { element: made }
}

/** Whether what a click does can be done: a channel that is hidden just now cannot be gone to. */
export const gone = (drawing: Drawing, does: Does): boolean => {
  const way = does.action === 'channel' ? wayOf(drawing, does.channel) : undefined
  return does.action === 'channel' && drawing.mode !== 'stage' && (!way || way.hidden)
}

/** A button of any kind; one that goes to a channel is that channel's link, with what is said beside it. */
export function button(
  drawing: Drawing,
  does: Does,
  className: string,
  ...words: (Node | string)[]
): HTMLElement {
  const way = does.action === 'channel' ? wayOf(drawing, does.channel) : undefined
  return way
    ? link(drawing, does.channel, way, way, className, ...words)
    : clickable(drawing, does, className, ...words)
}

export const buttonPart: Maker<'button'> = (drawing, part) => {
  const { page: doc } = drawing
  const plain = part.style === 'plain' || part.does.action === 'close'
  const made = button(
    drawing,
    part.does,
    plain ? 'button plain' : 'button',
    el(doc, 'span', { 'data-words': 'label' }, part.label),
  )
  const way = part.does.action === 'channel' ? wayOf(drawing, part.does.channel) : undefined
  if (gone(drawing, part.does)) made.hidden = true
  if (!way?.says || made.hidden) return { element: made }
  return { element: el(doc, 'div', {}, el(doc, 'p', { class: 'quiet' }, way.says.text), made) }
}
