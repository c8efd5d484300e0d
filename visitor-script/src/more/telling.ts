import { instant } from '../clean'
import { extrasOf } from './given'
import { el, pictureUrl, setMarkup } from '../render/dom'
import type { Drawing, Maker } from '../render/drawing'

import { button, gone } from './reaching'
import type { Extras, Spoken } from '../render/types'
import { say } from './words'

const money = ({ document: { speech } }: Drawing, amount: string | number, currency: string): string => {
  const value = Number(amount)
  const digits = Number.isInteger(value) ? 0 : 2
  return new Intl.NumberFormat(speech.locale, {
    style: 'currency',
    currency,
    minimumFractionDigits: digits,
  }).format(value)
}

/** What it costs, what it cost before, and what is saved. */
export const price: Maker<'price'> = (drawing, part) => {
  const { page: doc } = drawing
  const said = (amount: string | number): string => money(drawing, amount, part.currency)
  const row = el(doc, 'p', { class: `price to-${part.align}` }, el(doc, 'strong', {}, said(part.now)))
  if (part.unit) row.append(el(doc, 'span', {}, part.unit))
  if (part.old) {
    const saved = Number(part.old) - Number(part.now)
    row.append(
      el(doc, 's', { 'aria-label': say(drawing, 'before', { amount: said(part.old) }) }, said(part.old)),
    )
    if (part.show_saving && saved > 0)
      row.append(el(doc, 'span', { class: 'saving' }, say(drawing, 'less', { amount: said(saved) })))
  }
  return { element: row }
}

const DAY = 86_400_000

/** Time left, to a moment or for this visitor; every second, and it stops by itself. */
export const countdown: Maker<'countdown'> = (drawing, part) => {
  const { page: doc, around } = drawing
  const time = el(doc, 'time', { role: 'timer' })
  const words = el(doc, 'span', { 'data-words': 'label' }, part.label)
  const made = el(doc, 'div', { class: `countdown to-${part.align}` }, words, time)
  const end = (): number => {
    if (part.to) return instant(part.to)
    const now = around.now()
    const length = (part.minutes ?? 0) * 60_000
    const began = Number(around.memo(part.id))
    const again = part.again_after === null ? Infinity : length + part.again_after * 60_000
    if (began && now - began < again) return began + length
    around.memo(part.id, String(now))
    return now + length
  }
  const live = drawing.mode === 'live' || drawing.mode === 'inline'
  const over = (until: number): void => {
    if (part.at_end === 'close' && drawing.mode === 'live') return drawing.actions.close()
    time.hidden = true
    words.textContent = part.ended
    made.hidden = part.at_end !== 'words' && live
    // On an open page it begins again by itself.
    if (part.again_after !== null && !part.to) run(until + part.again_after * 60_000)
  }
  /** Says what is left until an instant; with a later start, once that has come. */
  const run = (from = 0): void => {
    const now = around.now()
    if (from > now) return void setTimeout(() => made.isConnected && run(from), Math.min(from - now, 60_000))
    const until = end()
    if (until <= now) return over(until)
    time.hidden = made.hidden = false
    words.textContent = part.label
    tick(until)
  }
  const tick = (until: number): void => {
    const left = until - around.now()
    if (left <= 0) return over(until)
    const pieces: [number, keyof Spoken][] = [
      [Math.floor(left / DAY), 'd'],
      [Math.floor(left / 3_600_000) % 24, 'h'],
      [Math.floor(left / 60_000) % 60, 'min'],
      [Math.floor(left / 1000) % 60, 's'],
    ]
    const shown = pieces[0]?.[0] ? pieces.slice(0, 3) : pieces.slice(1)
    time.replaceChildren(
      ...shown.map(([value, unit]) =>
        el(doc, 'span', {}, el(doc, 'b', {}, String(value)), el(doc, 'small', {}, ` ${say(drawing, unit)}`)),
      ),
    )
    setTimeout(() => made.isConnected && tick(until), 1000)
  }
  run()
  return { element: made }
}

export const links: Maker<'links'> = (drawing, part) => {
  const { page: doc } = drawing
  const items = part.items
    .filter((item) => !gone(drawing, item.does))
    .map((item) => el(doc, 'li', {}, button(drawing, item.does, '', item.label)))
  return { element: el(doc, 'ul', { class: part.columns === 2 ? 'links two' : 'links' }, ...items) }
}

/** The browser's own way of sharing, and the link to copy. */
export const share: Maker<'share'> = (drawing, part) => {
  const { page: doc } = drawing
  const url = part.address || (doc.defaultView ?? window).location.href
  const made = el(doc, 'div', { class: 'share' })
  const can = typeof navigator.share === 'function' || drawing.mode === 'stage'
  if (can) {
    const button = el(
      doc,
      'button',
      { class: 'button', type: 'button' },
      el(doc, 'span', { 'data-words': 'label' }, part.label),
    )
    button.addEventListener('click', () => {
      if (drawing.mode === 'stage') return
      drawing.actions.clicked()
      void navigator.share({ url, text: part.words }).then(
        () => drawing.actions.goal(),
        () => undefined,
      )
    })
    made.append(button)
  }
  const copy = el(doc, 'button', { class: 'button plain', type: 'button' }, say(drawing, 'copy_link'))
  copy.addEventListener('click', () => {
    if (drawing.mode === 'stage') return
    drawing.actions.clicked()
    void navigator.clipboard?.writeText(url).then(() => {
      copy.textContent = say(drawing, 'copied')
      drawing.actions.goal()
    })
  })
  made.append(copy)
  return { element: made }
}

function week(doc: Document, found: NonNullable<Extras['hours']>, now: boolean, all: boolean): Node[] {
  const rows = found.days.map((one) => {
    const times = one.spans.join(', ')
    return el(
      doc,
      'tr',
      {},
      el(doc, 'th', { scope: 'row' }, one.day),
      el(doc, 'td', {}, one.label ? `${times} (${one.label})` : times),
    )
  })
  return [
    ...(now ? [el(doc, 'p', {}, found.says)] : []),
    ...(all ? [el(doc, 'table', {}, el(doc, 'tbody', {}, ...rows))] : []),
  ]
}

export const hours: Maker<'hours'> = (drawing, part) => {
  const { page: doc } = drawing
  const made = el(doc, 'div', { class: 'hours' })
  void extrasOf(drawing).then(
    (found) => found.hours && made.replaceChildren(...week(doc, found.hours, part.now, part.week)),
  )
  return { element: made }
}

type Answered = NonNullable<Extras['questions']>[number]

/** A question that opens on its answer, and asks whether that helped. */
export function answered(drawing: Drawing, one: Answered, asks: boolean): HTMLElement {
  const { page: doc } = drawing
  const answer = el(doc, 'div', { class: 'answer' })
  // Sanitised by the server, which is the only one who writes answers.
  setMarkup(answer, one.answer)
  for (const image of answer.querySelectorAll('img'))
    image.src = drawing.around.base + (image.getAttribute('src') ?? '')
  const details = el(doc, 'details', {}, el(doc, 'summary', {}, one.question), answer)
  if (asks) details.append(helped(drawing, one.id))
  return details
}

function helped(drawing: Drawing, id: number): HTMLElement {
  const { page: doc } = drawing
  const row = el(doc, 'div', { class: 'helped' }, say(drawing, 'helped'))
  for (const [words, yes] of [
    ['yes', true],
    ['no', false],
  ] as const) {
    const button = el(doc, 'button', { type: 'button' }, say(drawing, words))
    button.addEventListener('click', () => {
      if (drawing.mode === 'stage') return
      void drawing.actions.post('helped', { question: id, helped: yes }).catch(() => undefined)
      row.replaceChildren(say(drawing, yes ? 'good' : 'ask_us'))
    })
    row.append(button)
  }
  return row
}

/** Questions & answers: searched by any word, grouped, and asked whether they helped. */
export const questions: Maker<'questions'> = (drawing, part) => {
  const { page: doc } = drawing
  const list = el(doc, 'div')
  const search = el(doc, 'input', {
    type: 'search',
    placeholder: say(drawing, 'search'),
    'aria-label': say(drawing, 'search'),
  })
  const made = el(doc, 'div', { class: 'questions' }, ...(part.search ? [search] : []), list)
  void extrasOf(drawing).then(({ questions: all = [] }) => {
    const fill = (): void => {
      const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
      const hit = all
        .filter((one) => !part.group || one.group === part.group)
        .filter((one) => words.every((word) => `${one.question} ${one.answer}`.toLowerCase().includes(word)))
      list.replaceChildren()
      let group = ''
      // What belongs to no group stands under none.
      for (const one of [...hit.filter((each) => !each.group), ...hit.filter((each) => each.group)]) {
        if (one.group && one.group !== group) list.append(el(doc, 'h3', {}, (group = one.group)))
        list.append(answered(drawing, one, part.helped))
      }
      const none = words.length
        ? say(drawing, 'nothing')
        : 'Your questions & answers stand here; there are none yet.'
      if (!hit.length) list.append(el(doc, 'p', { class: 'quiet' }, none))
    }
    // A visitor has nothing of a search through nothing.
    made.hidden = !all.length && drawing.mode !== 'stage'

    search.addEventListener('input', fill)
    fill()
  })
  return { element: made }
}

/** A video with its poster; it plays, with its sound, when a visitor starts it. */
export const video: Maker<'video'> = (drawing, part) => {
  const { page: doc, around } = drawing
  const made = el(doc, 'div', { class: 'video' })
  if (!part.asset) return { element: made }
  const player = el(doc, 'video', {
    src: `${around.base}/m/${part.asset}/video`,
    controls: '',
    playsinline: '',
    preload: 'none',
    'aria-label': part.description,
  })
  if (part.poster) player.poster = pictureUrl(around.base, part.poster)
  player.addEventListener('play', () => drawing.mode !== 'stage' && drawing.actions.clicked())
  player.addEventListener(
    'ended',
    () => drawing.document.leaving.video_end && drawing.mode === 'live' && drawing.actions.close(),
  )
  made.append(player)
  return { element: made }
}

const LEAST_HIGH = 20
const MOST_HIGH = 4000

/**
 * Foreign markup never stands in the page itself: a sandboxed frame without the page's origin. The frame's
 * own page comes from Intavo, so that neither the site's CSP nor the console's stops what the owner has put
 * in; it is as high as its content says. It knows its markup by a word of their own, since on the console's
 * stage what is sent comes from another window than the one it stands in.
 */
export const markup: Maker<'markup'> = (drawing, part) => {
  const { page: doc, around } = drawing
  const view = doc.defaultView ?? window
  const key = crypto.getRandomValues(new Uint32Array(2)).join('-')
  const frame = el(doc, 'iframe', {
    class: 'markup',
    sandbox: `allow-scripts allow-forms allow-popups${part.windows ? ' allow-popups-to-escape-sandbox' : ''}`,
    src: `${around.base}/e/frame#${key}`,
    height: String(part.height),
    title: part.description || say(drawing, 'more'),
  })
  const heard = (event: MessageEvent<{ intavo?: string; height?: number } | null>): void => {
    if (event.source !== frame.contentWindow) return
    if (event.data?.intavo === 'ready')
      frame.contentWindow?.postMessage({ intavo: 'markup', key, html: part.html }, '*')
    const high = event.data?.intavo === 'height' ? Number(event.data.height) : NaN
    if (high > 0) frame.height = String(Math.min(MOST_HIGH, Math.max(LEAST_HIGH, Math.ceil(high))))
    if (!frame.isConnected) view.removeEventListener('message', heard)
  }
  view.addEventListener('message', heard)
  return { element: el(doc, 'div', {}, frame) }
}
