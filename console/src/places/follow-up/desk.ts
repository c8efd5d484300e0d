import { useQueryClient } from '@tanstack/vue-query'
import { useDocumentVisibility, useIntervalFn, useSessionStorage, useThrottleFn } from '@vueuse/core'
import { onBeforeUnmount, ref, watch } from 'vue'
import { getUp, sitDown, type One } from '@/api/follow-ups'
import { isLeaving, left, stayed } from './leaving'

const AGAIN = 5_000
const SAVED_WITHIN = 1_500

/**
 * What is being written for a follow-up, kept on the server within 3 s, and who else is at it.
 * What the server has not taken yet is kept in the tab, so that a lost connection loses nothing.
 */
export function useDesk(now: () => One) {
  const one = now()
  const queries = useQueryClient()
  const unsaved = useSessionStorage(`answer-${one.id}`, '')
  // What is on its way is no draft, though nobody has said yet that it has gone.
  const begun = unsaved.value || one.draft
  const text = ref(isLeaving(one.id, begun) ? '' : begun)
  const others = ref(one.others)
  const seen = useDocumentVisibility()
  let taken = one.draft
  let wrote = false
  let gone = false
  let touched = !!unsaved.value

  async function tell() {
    const said = isLeaving(one.id, text.value) ? '' : text.value
    const changed = said !== taken && !isLeaving(one.id, taken)
    if (seen.value === 'hidden' && !changed) return
    const writing = wrote
    wrote = false
    try {
      const there = await sitDown(one.id, changed ? said : null, writing)
      if (!gone) others.value = there
      if (!!said !== !!taken) void queries.invalidateQueries({ queryKey: ['follow-ups'] })
      taken = said
      if (changed)
        queries.setQueryData<One>(['follow-up', one.id], (known) => known && { ...known, draft: said })
      if (text.value === said) unsaved.value = ''
    } catch {
      // Told again in a moment; the words are in the tab.
    }
  }
  const soon = useThrottleFn(tell, SAVED_WITHIN, true, false)
  watch(text, (now) => {
    if (now === taken && !touched) return
    touched = true
    unsaved.value = now
    wrote = !!now
    void soon()
  })
  watch(left, (gone) => {
    if (gone?.id !== one.id) return
    if (taken === gone.said) taken = ''
    if (text.value === gone.said) text.value = ''
  })
  watch(stayed, (back) => {
    if (back?.id === one.id) text.value ||= back.said
  })
  // Begun on another device, and read after this box was there.
  watch(
    () => now().draft,
    (draft) => {
      if (touched) return
      taken = draft
      text.value = draft
    },
  )
  useIntervalFn(() => void tell(), AGAIN, { immediateCallback: true })
  onBeforeUnmount(() => {
    gone = true
    void tell()
      .then(() => getUp(one.id))
      .catch(() => undefined)
  })
  return { text, others }
}
