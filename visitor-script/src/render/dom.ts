type Markup = (element: Element, text: string) => void

interface Policies {
  createPolicy(
    name: string,
    rules: { createHTML: (text: string) => string },
  ): { createHTML(text: string): string }
}

/**
 * How markup of the owner's is put into an element, where the page lets only named policies do so: once, for
 * both files.
 */
function policy(): Markup {
  let made: ReturnType<Policies['createPolicy']> | undefined
  try {
    made = (window as { trustedTypes?: Policies }).trustedTypes?.createPolicy('intavo', {
      createHTML: (text) => text,
    })
  } catch {
    // It lets nobody in whom it does not name; there are still the words.
  }
  return (element, text) => {
    try {
      element.innerHTML = made ? made.createHTML(text) : text
    } catch {
      element.textContent = text.replace(/<[^>]*>/g, ' ')
    }
  }
}

export const setMarkup: Markup = (window as { intavo?: { $markup?: Markup } }).intavo?.$markup ?? policy()

/** Makes elements: attributes by name, text as text, never as markup. */
export function el<K extends keyof HTMLElementTagNameMap>(
  doc: Document,
  tag: K,
  attributes: Record<string, string> = {},
  ...children: (Node | string)[]
): HTMLElementTagNameMap[K] {
  const made = doc.createElement(tag)
  for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, value)
  made.append(...children)
  return made
}

const WIDTHS = [480, 960, 1600]

/** Where a picture of the library is, in the widths it is kept in. */
export function pictureUrl(base: string, asset: string, width = 960): string {
  return `${base}/m/${asset}/${width}.webp`
}

export function srcset(base: string, asset: string): string {
  return WIDTHS.map((width) => `${pictureUrl(base, asset, width)} ${width}w`).join(', ')
}

const SIGNS: Record<string, string> = {
  question: 'M9 9a3 3 0 1 1 4.5 2.6c-1 .6-1.5 1.2-1.5 2.4M12 17.6v.4',
  phone: 'M6 4h3l2 5-2.2 1.5a11 11 0 0 0 4.7 4.7L15 13l5 2v3a2 2 0 0 1-2 2A14 14 0 0 1 4 6a2 2 0 0 1 2-2z',
  mail: 'M4 6h16v12H4zM4 7l8 6 8-6',
  message: 'M4 5h16v11H10l-5 4v-4H4z',
  gift: 'M4 9h16v11H4zM3 6h18v3H3zM12 6v14M12 6C9 6 7 5 8 3s4 0 4 3c0-3 3-5 4-3s-1 3-4 3',
}

/** A small drawn sign; it says nothing to screen readers. */
export function sign(doc: Document, name: string): SVGElement | null {
  const path = SIGNS[name]
  if (!path) return null
  const holder = doc.createElement('span')
  setMarkup(
    holder,
    `<svg viewBox="0 0 24 24" width="20" height="20" fill="none" stroke="currentColor" stroke-width="2" stroke-linecap="round" stroke-linejoin="round" aria-hidden="true"><path d="${path}"/></svg>`,
  )
  return holder.firstElementChild as SVGElement
}
