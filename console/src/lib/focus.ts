import { useEventListener, useMutationObserver } from '@vueuse/core'
import { type Directive, type Ref } from 'vue'

const FIRST = 'input:not([type=hidden]):not(:disabled), textarea, select, [contenteditable=true]'
const NEXT = 'button:not(:disabled), a[href], input:not(:disabled)'
const left = new WeakMap<HTMLElement, HTMLElement | null>()

/**
 * For a form that comes in the place of the button that opened it: the focus goes to its first field, and
 * back beside it when it goes, so that who works by keyboard never stands at the top of the page again.
 */
export const vTakesFocus: Directive<HTMLElement> = {
  mounted(form) {
    form.querySelector<HTMLElement>(FIRST)?.focus()
  },
  beforeUnmount(form) {
    // A button that is disabled while it sends has lost the focus already.
    const here = document.activeElement
    left.set(form, here === document.body || form.contains(here) ? form.parentElement : null)
  },
  unmounted(form) {
    const around = left.get(form)
    // What comes instead of it stands there by then, and may have taken the focus itself.
    requestAnimationFrame(() => {
      if (document.activeElement === document.body) around?.querySelector<HTMLElement>(NEXT)?.focus()
    })
  },
}

/**
 * Who works by keyboard is never left on the page itself: where what had the focus is gone, or cannot have it any
 * more, it goes to what `next` names. Whoever clicks beside everything means to leave.
 */
export function keepFocus(
  root: Ref<HTMLElement | undefined>,
  next: () => HTMLElement | null | undefined,
): void {
  let inside = false
  const left = () => document.activeElement === document.body || !document.activeElement
  useEventListener(root, 'focusin', () => (inside = true))
  useEventListener(document, 'pointerdown', () => requestAnimationFrame(() => (inside &&= !left())))
  useMutationObserver(root, () => requestAnimationFrame(() => inside && left() && next()?.focus()), {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['disabled'],
  })
}
