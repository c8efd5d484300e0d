import type { FullLook, FullValues } from './types'

const SHADOWS = { none: 'none', soft: '0 6px 24px rgba(0,0,0,.18)', strong: '0 18px 60px rgba(0,0,0,.32)' }
const CONTENT = { top: 'flex-start', middle: 'center', bottom: 'flex-end' }
export const PHONE = '(max-width:600px)'

/** The look that holds on this screen. */
export function looks(look: FullLook, view: Window): FullValues {
  return view.matchMedia(PHONE).matches ? look.phone : look
}

/** Writes the values of a look onto the element that everything stands in. */
export function paint(host: HTMLElement, values: FullValues): void {
  const { colours, background, backdrop } = values
  const gradient = `linear-gradient(${background.angle}deg,${background.start},${background.end})`
  const set: Record<string, string> = {
    ...colours,
    w: `${values.width}px`,
    h:
      typeof values.height === 'number' ? `${values.height}px` : values.height === 'screen' ? '100%' : 'auto',
    edge: `${values.edge}px`,
    pad: `${values.spacing}px`,
    round: `${values.corners}px`,
    line: `${values.border}px`,
    content: CONTENT[values.content],
    shadow: SHADOWS[values.shadow],
    card: background.kind === 'gradient' ? gradient : colours.card,
    sign: `${values.cross.size}px`,
    backdrop: `color-mix(in srgb,${colours.backdrop} ${backdrop.strength}%,transparent)`,
    dim: String(backdrop.strength / 100),
    size: `${values.size}px`,
    head_size: `${values.head_size}px`,
    weight: String(values.weight),
    head_weight: String(values.head_weight),
    font: 'system-ui,sans-serif',
    head_font: 'system-ui,sans-serif',
    slide: `0 ${values.place.startsWith('top') ? '-' : ''}110%`,
  }
  for (const [name, value] of Object.entries(set))
    host.style.setProperty(`--${name.replace('_', '-')}`, value)
}
