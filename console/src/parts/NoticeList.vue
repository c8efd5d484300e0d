<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useNotices } from '@/lib/notices'
import { Failure } from '@/api/client'

const notices = useNotices()
const queries = useQueryClient()
/** Where the focus was before it came here: there it goes back. */
let before: HTMLElement | null = null
function come(event: FocusEvent) {
  if (event.relatedTarget instanceof HTMLElement && !event.relatedTarget.closest('[role=status]'))
    before = event.relatedTarget
}
/** Where that is gone: what is open in the place, or the first that can be pressed there. */
const nearest = () =>
  document.querySelector<HTMLElement>('main [aria-current=true]') ??
  document.querySelector<HTMLElement>('main :is(a[href], button:not(:disabled))')
async function back(id: number, undo: () => Promise<unknown>, byKey: boolean) {
  if (byKey) (before?.isConnected ? before : nearest())?.focus()
  before = null
  notices.drop(id)
  try {
    await undo()
    // What offered it may be closed by now, and tells nobody to look again.
    await queries.invalidateQueries()
  } catch (error) {
    notices.say(error instanceof Failure ? error.message : 'This could not be undone.', { bad: true })
  }
}
</script>

<template>
  <div
    class="pointer-events-none fixed inset-x-0 bottom-4 z-40 flex flex-col items-center gap-2 max-md:top-2 max-md:bottom-auto max-md:px-2"
    role="status"
    @focusin="come"
  >
    <p
      v-for="one in notices.shown"
      :key="one.id"
      class="pointer-events-auto flex items-center gap-4 rounded-lg px-4 py-2 text-sheet shadow-lg"
      :class="one.bad ? 'bg-rust' : 'bg-ink'"
      @pointerenter="$event.pointerType === 'mouse' && notices.hold(one.id)"
      @pointerleave="notices.letGo(one.id)"
      @focusin="notices.hold(one.id)"
      @focusout="notices.letGo(one.id)"
    >
      {{ one.text }}
      <button
        v-if="one.undo"
        type="button"
        data-undo
        class="font-semibold underline"
        @click="back(one.id, one.undo, $event.detail === 0)"
      >
        Undo
      </button>
    </p>
  </div>
</template>
