import { nextTick, watch, type Ref } from 'vue'

const NEAR = 40

/**
 * The newest entry of a timeline is in view when it is opened, and when one comes while the end is in view;
 * whoever has scrolled up to read is left there, but for what they did themselves. An entry longer than the
 * box begins at its top.
 */
export function useNewestInView(
  box: Ref<HTMLElement | undefined>,
  whose: () => unknown,
  count: () => number,
  own: () => number,
): void {
  watch(
    [box, whose, count, own],
    async ([now], before) => {
      const whole = box.value
      if (!whole || !now) return
      const atEnd = whole.scrollHeight - whole.scrollTop - whole.clientHeight < NEAR
      if (before[0] === now && before[1] === whose() && before[3] === own() && !atEnd) return
      await nextTick()
      const last = [...whole.querySelectorAll('ol > li, [aria-label="Waiting for a connection"] > li')].at(-1)
      whole.scrollTop = whole.scrollHeight
      if (last && last.getBoundingClientRect().top < whole.getBoundingClientRect().top)
        last.scrollIntoView({ block: 'start' })
    },
    { flush: 'pre', immediate: true },
  )
}
