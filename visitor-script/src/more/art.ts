import { el, pictureUrl, srcset } from '../render/dom'
import type { FullValues } from '../render/types'

const FAMILIES: Record<string, string> = {
  sans: 'system-ui,sans-serif',
  serif: 'ui-serif,Georgia,serif',
  rounded: 'ui-rounded,system-ui,sans-serif',
  mono: 'ui-monospace,monospace',
}

function family(font: FullValues['font']): string {
  if (font.source === 'system') return FAMILIES[font.name] ?? 'system-ui,sans-serif'
  // A site's own may be a whole list, as its page has it.
  return font.name.includes(',') ? font.name : `"${font.name}",system-ui,sans-serif`
}

/** A colour that lets so much through, in percent. */
const clear = (colour: string, percent: number): string =>
  percent ? `color-mix(in srgb,${colour},transparent ${percent}%)` : colour

/** The values of a look that the loader leaves at their usual. */
export function paintMore(host: HTMLElement, values: FullValues): void {
  host.style.setProperty('--font', family(values.font))
  host.style.setProperty('--head-font', family(values.head_font))
  host.style.setProperty('--button-font', family(values.button_font))
  host.style.setProperty('--button-size', `${values.button_size}px`)
  host.style.setProperty('--edge-y', `${values.edge_y}px`)
  const { colours, background, card_clear, button_clear } = values
  host.style.setProperty('--fill', clear(colours.button, button_clear))
  host.style.setProperty('--fill-hover', clear(colours.button_hover, button_clear))
  host.style.setProperty('--solid', String(1 - card_clear / 100))
  if (card_clear) {
    const [from, to] = [clear(background.start, card_clear), clear(background.end, card_clear)]
    const gradient = `linear-gradient(${background.angle}deg,${from},${to})`
    // A picture or film is let through by itself; the colour under it would shine through as well.
    const painted =
      background.asset && background.kind !== 'gradient' ? 'none' : clear(colours.card, card_clear)
    host.style.setProperty('--card', background.kind === 'gradient' ? gradient : painted)
  }
  const side = /(left|right)$/.exec(values.place)?.[1]
  if (side && !/^(top|bottom)/.test(values.place))
    host.style.setProperty('--slide', side === 'left' ? '-110% 0' : '110% 0')
}

export const SHIPPED: Record<string, string> = {
  Figtree: 'figtree',
  'Bricolage Grotesque': 'bricolage-grotesque',
  Literata: 'literata',
  Nunito: 'nunito',
}
interface Shown {
  asset?: string | null
  focus_x: number
  focus_y: number
  bright: number
  wash: number
  wash_colour: string
}

/** A picture (or a muted video) filling its box: focus point, brightness and wash as set. */
export function art(
  page: Document,
  base: string,
  shown: Shown,
  className: string,
  description = '',
  video = false,
): HTMLElement {
  const box = el(page, 'div', { class: `art ${className}` })
  const inner = video
    ? el(page, 'video', {
        src: `${base}/m/${shown.asset}/video`,
        autoplay: '',
        loop: '',
        playsinline: '',
        'aria-hidden': 'true',
      })
    : el(page, 'img', {
        src: pictureUrl(base, shown.asset ?? ''),
        srcset: srcset(base, shown.asset ?? ''),
        sizes: '(max-width:600px) 100vw, 640px',
        alt: description,
        loading: className === 'inline-art' ? 'lazy' : 'eager',
      })
  const view = page.defaultView ?? window
  if (inner instanceof view.HTMLVideoElement) {
    inner.muted = true
    // Whoever asks for less motion gets its first picture.
    inner.autoplay = !view.matchMedia('(prefers-reduced-motion:reduce)').matches
  }
  inner.style.objectPosition = `${shown.focus_x}% ${shown.focus_y}%`
  if (shown.bright) inner.style.filter = `brightness(${1 + shown.bright / 100})`
  box.style.setProperty('--wash', String(shown.wash / 100))
  box.style.setProperty('--wash-colour', shown.wash_colour)
  box.append(inner)
  return box
}

/** What lies behind the whole card, where that is more than a colour. */
export function behindCard(page: Document, base: string, values: FullValues): HTMLElement | null {
  const { background } = values
  if (!background.asset || (background.kind !== 'picture' && background.kind !== 'video')) return null
  const made = art(page, base, background, 'behind', '', background.kind === 'video')
  made.setAttribute('aria-hidden', 'true')
  return made
}

/** The picture or video that lies over the page behind. */
export function backdropArt(backdrop: HTMLElement, page: Document, base: string, values: FullValues): void {
  const { asset } = values.backdrop
  if (!asset) return
  const still = el(page, 'img', { src: pictureUrl(base, asset, 1600), alt: '' })
  // The id does not say what it is: what is no picture is played.
  still.addEventListener('error', () => {
    const video = el(page, 'video', {
      src: `${base}/m/${asset}/video`,
      autoplay: '',
      loop: '',
      playsinline: '',
    })
    video.muted = true
    video.autoplay = !(page.defaultView ?? window).matchMedia('(prefers-reduced-motion:reduce)').matches
    still.replaceWith(video)
  })
  backdrop.append(still)
}

/** Fonts belong to the page, not to a shadow root; a site whose CSP refuses them keeps the system's. */
export function loadFonts(values: FullValues, base: string, page: Document): void {
  for (const font of [values.font, values.head_font, values.button_font]) {
    const file = font.source === 'shipped' ? SHIPPED[font.name] : undefined
    if (!file || [...page.fonts].some((face) => face.family.replace(/["']/g, '') === font.name)) continue
    const Face = (page.defaultView ?? window).FontFace
    const face = new Face(font.name, `url(${base}/static/touch/fonts/${file}.woff2)`, {
      weight: '200 900',
      display: 'swap',
    })
    page.fonts.add(face)
    face.load().catch(() => page.fonts.delete(face))
  }
}
