<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Addable } from '@/api/touchpoints'
import { dragRows } from '@/lib/sort'
import { freshPart, thanksOf } from './fresh'
import PartForm from './PartForm.vue'
import type { Change, Part, TouchpointDocument } from '@/api/document'
import { glimpse, nameOf } from './words'

const props = defineProps<{
  document: TouchpointDocument
  step: string
  thanks: Addable['thanks']
  wrong?: Record<string, string>
}>()
const selected = defineModel<string | null>('selected', { required: true })
const emit = defineEmits<{ change: Change }>()
const list = ref<HTMLElement>()
const parts = computed(() => props.document.steps.find((one) => one.id === props.step)?.parts ?? [])

const stepOf = (document: TouchpointDocument) => document.steps.find((one) => one.id === props.step)
function set(part: Part, what: string, patch: Record<string, unknown>) {
  emit('change', `${part.id}.${what}`, (document) => {
    const found = stepOf(document)?.parts.find((one) => one.id === part.id)
    if (!found) return
    Object.assign(found, patch)
    leadOn(document, found)
    if ('share' in patch || 'row' in patch) share(stepOf(document)?.parts ?? [], found)
  })
}
/** The shares of a row always make up the whole: what one takes, the others give in their proportion. */
function share(rows: Part[], part: Part) {
  const others = rows.filter((one) => one.row !== null && one.row === part.row && one !== part)
  if (!others.length) return
  part.share = Math.min(100 - 10 * others.length, Math.max(10, part.share))
  const sum = others.reduce((all, one) => all + one.share, 0)
  let left = 100 - part.share
  others.forEach((one, at) => {
    const room = left - 10 * (others.length - 1 - at)
    one.share =
      at === others.length - 1
        ? left
        : Math.min(room, Math.max(10, Math.round(((100 - part.share) * one.share) / sum)))
    left -= one.share
  })
}
/** What sends always leads somewhere. */
function leadOn(document: TouchpointDocument, part: Part) {
  if (part.kind === 'button' && part.does.action === 'send')
    part.does.next ??= thanksOf(document, props.thanks)
}
function move(from: number, to: number) {
  if (from === to || to < 0 || to >= parts.value.length) return
  emit('change', 'order', (document) => {
    const rows = stepOf(document)?.parts
    const [part] = rows?.splice(from, 1) ?? []
    if (rows && part) rows.splice(to, 0, part)
  })
}
/**
 * Where a part goes that is added to no other: what is filled in before the button that sends it, all else
 * last.
 */
function endFor(rows: Part[], part: Part): number {
  const sends = rows.findIndex((one) => one.kind === 'button' && one.does.action === 'send')
  return sends >= 0 && (part.kind === 'field' || part.kind === 'consent') ? sends : rows.length
}
/**
 * The part that is worked on is in view, with its form: it may be chosen on the stage, or by what is said of
 * it.
 */
watch(
  [selected, () => props.step],
  async ([id]) => {
    await nextTick()
    const row = id ? list.value?.querySelector<HTMLElement>(`[data-id="${CSS.escape(id)}"]`) : null
    const pane = row?.closest<HTMLElement>('.overflow-auto')?.getBoundingClientRect()
    const at = row?.getBoundingClientRect()
    if (!row || !pane || !at || (at.top >= pane.top && at.bottom <= pane.bottom)) return
    row.scrollIntoView({ block: at.height > pane.height ? 'start' : 'nearest' })
  },
  { flush: 'post' },
)
function add(pattern: Part) {
  const part = freshPart(props.document, pattern)
  emit('change', `add.${part.id}`, (document) => {
    const rows = stepOf(document)?.parts
    const at = rows?.findIndex((one) => one.id === selected.value) ?? -1
    rows?.splice(at < 0 ? endFor(rows, part) : at + 1, 0, part)
    leadOn(document, part)
  })
  selected.value = part.id
}
/** What a part could share a row with: the part before it, unless that is a picture around the words. */
function neighbour(at: number): string {
  const before = parts.value[at - 1]
  return before && !(before.kind === 'picture' && before.place !== 'inline') ? nameOf(before) : ''
}
const twice = (part: Part) => add(part)
function remove(part: Part) {
  emit('change', `remove.${part.id}`, (document) => {
    const step = stepOf(document)
    if (step) step.parts = step.parts.filter((one) => one.id !== part.id)
  })
  selected.value = null
}
/** Stand in one row with the part before, or not any more. */
function row(at: number, joined: boolean) {
  emit('change', 'row', (document) => {
    const rows = stepOf(document)?.parts ?? []
    const [before, part] = [rows[at - 1], rows[at]]
    if (!part) return
    if (!joined) {
      const left = rows.filter((one) => one !== part && one.row === part.row)
      if (left.length === 1 && left[0]) Object.assign(left[0], { row: null, share: 100 })
      return Object.assign(part, { row: null, share: 100 })
    }
    const name = before?.row ?? `r${part.id}`
    if (before && before.row === null) Object.assign(before, { row: name, share: 65 })
    Object.assign(part, { row: name, share: 35 })
    share(rows, part)
  })
}
defineExpose({ add })
/** Where the part that was moved stands now. */
const said = ref('')
async function keys(event: KeyboardEvent, at: number) {
  const part = parts.value[at]
  if (!part) return
  const way = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (way !== undefined) {
    event.preventDefault()
    if (event.altKey) move(at, at + way)
    // The same row keeps the focus wherever it has gone to.
    const to = event.altKey ? part.id : parts.value[at + way]?.id
    await nextTick()
    list.value?.querySelector<HTMLElement>(`[data-id="${to}"] [data-handle]`)?.focus()
    const now = parts.value.findIndex((one) => one.id === part.id)
    if (event.altKey) said.value = `${nameOf(part)}: ${now + 1} of ${parts.value.length}`
  } else if (event.key === 'Delete') remove(part)
}

let stopDragging: () => void = () => undefined
onMounted(() => {
  if (list.value) stopDragging = dragRows(list.value, move)
})
onBeforeUnmount(() => stopDragging())
</script>

<template>
  <div>
    <ol ref="list" class="grid grid-cols-1 gap-1" aria-label="Parts of this step">
      <li
        v-for="(part, at) in parts"
        :key="part.id"
        :data-id="part.id"
        class="min-w-0 rounded-md"
        :class="[
          selected === part.id ? 'border border-l-4 border-petrol bg-sheet' : '',
          part.row && part.row === parts[at - 1]?.row ? 'ml-4' : '',
        ]"
      >
        <div class="flex items-center rounded-md hover:bg-petrol-wash" :class="{ hatch: part.hidden }">
          <span data-grip class="cursor-grab px-1.5 text-ink-3" aria-hidden="true">⠿</span>
          <button
            type="button"
            data-handle
            class="flex min-w-0 flex-1 items-baseline gap-2 py-1.5 text-left"
            :aria-expanded="selected === part.id"
            @click="selected = selected === part.id ? null : part.id"
            @keydown="keys($event, at)"
          >
            <span class="shrink-0 rounded font-semibold" :class="{ 'bg-fog px-1': part.hidden }">{{
              nameOf(part)
            }}</span>
            <span
              v-if="selected !== part.id"
              class="min-w-0 truncate text-sm text-ink-2"
              :class="{ 'rounded bg-fog px-1': part.hidden }"
              >{{ part.hidden ? 'hidden' : glimpse(part) }}</span
            >
            <span v-if="part.on.length === 1" class="chip ml-auto shrink-0">{{ part.on[0] }} only</span>
          </button>
          <template v-if="selected === part.id">
            <button
              type="button"
              class="px-1.5 text-sm text-ink-2 hover:text-ink"
              :aria-label="`duplicate ${nameOf(part)}`"
              @click="twice(part)"
            >
              duplicate
            </button>
            <button
              type="button"
              class="px-1.5 text-sm text-rust"
              :aria-label="`Remove ${nameOf(part)}`"
              @click="remove(part)"
            >
              remove
            </button>
          </template>
        </div>
        <PartForm
          v-if="selected === part.id"
          class="px-2.5 pt-1 pb-2.5"
          :part="part"
          :document="document"
          :row-with="neighbour(at)"
          @set="(what, patch) => set(part, what, patch)"
          @row="row(at, $event)"
        />
        <template v-for="(words, place) in wrong" :key="place">
          <p
            v-if="selected === part.id && String(place).split('.')[0] === part.id"
            class="px-2.5 pb-2 text-sm font-semibold text-rust"
          >
            {{ words }}
          </p>
        </template>
      </li>
    </ol>
    <p class="sr-only" aria-live="polite">{{ said }}</p>
  </div>
</template>
