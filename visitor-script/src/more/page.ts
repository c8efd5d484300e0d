import { read } from '../clean'
import type { Wants } from '../plan'

const texts = (selector: string, attribute: string): string[] =>
  [...document.querySelectorAll(selector)].flatMap((one) => (one.getAttribute(attribute) ?? '').split(','))

/** The types in structured data, however deep they lie. */
function types(value: unknown): string[] {
  if (Array.isArray(value)) return value.flatMap(types)
  if (typeof value !== 'object' || value === null) return []
  const { '@type': own, '@graph': graph } = value as Record<string, unknown>
  const crumbs = own === 'BreadcrumbList' ? trail(value as { itemListElement?: unknown }) : []
  return [...[own].flat().filter((one) => typeof one === 'string'), ...crumbs, ...types(graph)]
}

/** The names in a breadcrumb, without the last, which is the page itself. */
function trail({ itemListElement }: { itemListElement?: unknown }): string[] {
  const items = Array.isArray(itemListElement)
    ? (itemListElement as { name?: string; item?: { name?: string } }[])
    : []
  return items.slice(0, -1).map((one) => one.name ?? one.item?.name ?? '')
}

/** What kinds of page this is, as it says of itself, and whether somebody is signed in. */
export function readPage(wants: Wants): { kinds: string[]; signed_in: boolean } {
  const data = [...document.querySelectorAll('script[type="application/ld+json"]')].flatMap((one) => {
    try {
      return types(read(one.textContent ?? ''))
    } catch {
      return []
    }
  })
  const items = texts('[itemscope][itemtype]', 'itemtype').map((one) => one.split('/').pop() ?? '')
  const said = [
    ...texts('[data-intavo-page]', 'data-intavo-page'),
    ...texts(
      'meta[property="article:section"],meta[property="article:tag"],meta[property="og:type"]',
      'content',
    ),
    ...data,
    ...items,
  ]
  const kinds = wants.kinds
    ? [...new Set(said.map((one) => one.trim().toLowerCase()))].filter(Boolean).slice(0, 20)
    : []
  return { kinds, signed_in: !!wants.signed_in && document.querySelector(wants.signed_in) !== null }
}
