import type { Directive } from 'vue'

type Box = HTMLInputElement | HTMLTextAreaElement
const typing = new WeakSet<Box>()

/**
 * The value of a box that is taken when it is left. A plain `:value` is written anew whenever something else
 * on the screen changes (an answer comes in), and what is being typed would be gone; with this it stands
 * until it is taken, and what is refused stands beside the words that say why.
 */
export const vTyped: Directive<Box, string | number | null> = {
  mounted(box, { value }) {
    box.value = String(value ?? '')
    box.addEventListener('input', () => typing.add(box))
    box.addEventListener('change', () => typing.delete(box), { capture: true })
  },
  updated(box, { value, oldValue }) {
    if (value === oldValue && (typing.has(box) || box.ariaInvalid === 'true')) return
    typing.delete(box)
    const text = String(value ?? '')
    if (box.value !== text) box.value = text
  },
}
