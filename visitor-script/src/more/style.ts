import { unpacked } from './rehearsal'
/**
 * What a site's own page looks like, as a house style; read in the owner's browser, only when they ask for
 * it.
 */

interface Font {
  source: 'system' | 'site'
  name: string
}

export interface ReadStyle {
  font: Font | null
  head_font: Font | null
  corners: number | null
  colours: Record<string, string>
  /** The logo as a data URL, where the page lets it be read. */
  logo: string | null
}

const GENERIC =
  /^(system-ui|ui-[a-z-]+|sans-serif|serif|monospace|cursive|fantasy|inherit|-apple-system|BlinkMacSystemFont)$/

function hex(colour: string): string | null {
  const found = /^rgba?\((\d+),\s*(\d+),\s*(\d+)(?:,\s*([\d.]+))?\)/.exec(colour)
  if (!found || found[4] === '0') return null
  return `#${[1, 2, 3].map((at) => Number(found[at]).toString(16).padStart(2, '0')).join('')}`
}

function font(style: CSSStyleDeclaration | null): Font | null {
  const first = style?.fontFamily.split(',')[0]?.trim().replace(/["']/g, '') ?? ''
  if (!first) return null
  const whole = style?.fontFamily.replace(/["]/g, "'").slice(0, 200) ?? first
  if (!GENERIC.test(first)) return { source: 'site', name: whole }
  return {
    source: 'system',
    name: /^(ui-)?serif$/.test(first) ? 'serif' : first.includes('mono') ? 'mono' : 'sans',
  }
}

/** The first background that is painted behind an element. */
function behind(element: Element | null): string | null {
  for (let one = element; one; one = one.parentElement) {
    const found = hex(getComputedStyle(one).backgroundColor)
    if (found) return found
  }
  return null
}

function button(): HTMLElement | null {
  const tried = document.querySelectorAll<HTMLElement>(
    'a[class*="button"],a[class*="btn"],button,input[type=submit],[role=button]',
  )
  return (
    [...tried].find((one) => one.offsetParent !== null && hex(getComputedStyle(one).backgroundColor)) ?? null
  )
}

async function logo(): Promise<string | null> {
  const image = document.querySelector<HTMLImageElement>('img[class*="logo"],img[alt*="logo" i],header img')
  const drawn = document.querySelector<SVGElement>('header svg')
  const src =
    image?.currentSrc ||
    image?.src ||
    (drawn ? `data:image/svg+xml,${encodeURIComponent(new XMLSerializer().serializeToString(drawn))}` : '')
  if (!src) return null
  const copy = new Image()
  copy.crossOrigin = 'anonymous'
  copy.src = src
  try {
    await copy.decode()
    const canvas = document.createElement('canvas')
    const scale = Math.min(1, 600 / (copy.naturalWidth || 600))
    canvas.width = Math.max(1, Math.round((copy.naturalWidth || 300) * scale))
    canvas.height = Math.max(1, Math.round((copy.naturalHeight || 150) * scale))
    canvas.getContext('2d')?.drawImage(copy, 0, 0, canvas.width, canvas.height)
    return canvas.toDataURL('image/png')
  } catch {
    return null
  }
}

export async function readStyle(): Promise<ReadStyle> {
  const head = document.querySelector('h1,h2')
  const found = button()
  const style = found ? getComputedStyle(found) : null
  const colours: Record<string, string | null> = {
    card: behind(document.querySelector('main') ?? document.body) ?? '#ffffff',
    text: hex(getComputedStyle(document.body).color),
    headline: head ? hex(getComputedStyle(head).color) : null,
    button: style ? hex(style.backgroundColor) : null,
    button_text: style ? hex(style.color) : null,
  }
  const known = Object.entries(colours).filter((one): one is [string, string] => one[1] !== null)
  return {
    font: font(getComputedStyle(document.body)),
    head_font: head ? font(getComputedStyle(head)) : null,
    corners: style ? Math.min(60, Math.round(parseFloat(style.borderTopLeftRadius) || 0)) : null,
    colours: Object.fromEntries(known),
    logo: await logo(),
  }
}

/** Tells the console that opened this page what it looks like. */
export function tellStyle(): void {
  const [, before, packed] = /^#intavo(?:-style=(.+)|_style_([\w-]+))$/.exec(location.hash) ?? []
  const asked = packed ? unpacked(packed) : before && decodeURIComponent(before)
  const opener = window.opener as Window | null
  if (!asked || !opener) return
  void readStyle().then((style) => opener.postMessage({ intavo: 'style', style }, asked))
}
