/** Makes elements: attributes by name, text as text, never as markup. */
export function el<K extends keyof HTMLElementTagNameMap>(
  doc: Document,
  tag: K,
  attributes: Record<string, string> = {},
  ...children: (Node | string)[]
): HTMLElementTagNameMap[K] {
  const made = doc.createElement(tag)
  for (const name in attributes) made.setAttribute(name, attributes[name] ?? '')
  made.append(...children)
  return made
}

const FOCUSABLE = 'a[href],button,input,textarea,[tabindex="0"]'

export function focusable(root: ParentNode): HTMLElement[] {
  return [...root.querySelectorAll<HTMLElement>(FOCUSABLE)].filter((one) => one.offsetParent !== null)
}
