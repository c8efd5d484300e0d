<script setup lang="ts">
import { computed, nextTick, ref, useId, useTemplateRef, watch } from 'vue'
import { useClock } from '@/lib/clock'
import { toLocal } from '@/lib/local'
import { clockOf, shortDay } from '@/lib/time'
import { readWhen, saidWhen, type Kind } from '@/lib/when'

/**
 * A day, a time of day, or both: typed as people write them, shown as the rest of the screen shows them. A
 * browser's own date box has the browser's order, whatever the business's region. Taken when it is left; what
 * cannot be read stays, with the words that say so.
 */
defineOptions({ inheritAttrs: false })
const props = withDefaults(
  defineProps<{ value: string | null; kind?: Kind; invalid?: boolean; piece?: boolean }>(),
  { kind: 'date' },
)
const emit = defineEmits<{ set: [value: string | null] }>()
const { zone, now } = useClock()
const id = useId()
const said = computed(() => saidWhen(props.value ?? '', props.kind))
const text = ref(said.value)
const wrong = ref('')
const box = useTemplateRef<HTMLInputElement>('box')
const calendar = useTemplateRef<HTMLInputElement>('calendar')
const [day, time] = [shortDay('2026-11-24'), clockOf('15:25')]
const HINTS = { date: `such as ${day}`, time: `such as ${time}`, both: `such as ${day} ${time}` }
const UNREAD = { date: 'This is no day.', time: 'This is no time.', both: 'This is no day and time.' }

/** What is being typed stands, whatever else changes meanwhile. */
const typing = ref(false)
watch(said, (words) => {
  if (typing.value) return
  text.value = words
  wrong.value = ''
  // Whoever has just come to it types over it.
  if (document.activeElement === box.value) void nextTick(() => box.value?.select())
})
function take() {
  typing.value = false
  const today = toLocal(now.value.toISOString(), zone.value).slice(0, 10)
  const typed = text.value.trim()
  const value = typed ? readWhen(typed, props.kind, today) : null
  wrong.value = typed && !value ? `${UNREAD[props.kind]} Write it ${HINTS[props.kind]}.` : ''
  if (wrong.value) return
  const same = value === (props.value || null)
  text.value = same ? said.value : saidWhen(value ?? '', props.kind)
  if (!same) emit('set', value)
  // Where there has to be one, it stands there again.
  if (!value) void nextTick(() => (text.value = said.value))
}
function picked(day: string) {
  const before = props.value?.split('T')[1]
  text.value = [day, props.kind === 'both' && before].filter(Boolean).join('T')
  take()
}
</script>

<template>
  <span :class="piece ? 'inline-block' : 'block min-w-0'">
    <span class="relative block w-fit" :class="{ 'w-full': !piece && !$attrs.class }">
      <input
        ref="box"
        v-bind="$attrs"
        v-model="text"
        type="text"
        autocomplete="off"
        :class="[piece ? 'piece' : 'input', { 'pr-8!': kind !== 'time' }]"
        :placeholder="HINTS[kind]"
        :aria-invalid="invalid || !!wrong"
        :aria-describedby="wrong ? id : undefined"
        @input="typing = true"
        @change="take"
        @keydown.alt.down.prevent="calendar?.showPicker()"
      />
      <!-- For the pointer; the keyboard types, or opens it by Alt and the arrow down. -->
      <template v-if="kind !== 'time'">
        <input
          ref="calendar"
          type="date"
          class="pointer-events-none absolute right-0 bottom-0 size-px opacity-0"
          tabindex="-1"
          aria-hidden="true"
          :value="value?.slice(0, 10) ?? ''"
          @change.stop="picked(($event.target as HTMLInputElement).value)"
        />
        <button
          type="button"
          class="absolute top-0 right-0 grid h-full max-h-9 w-8 place-items-center text-ink-2 hover:text-petrol"
          tabindex="-1"
          aria-hidden="true"
          title="Calendar"
          @click.prevent="calendar?.showPicker()"
        >
          <svg
            viewBox="0 0 16 16"
            width="14"
            height="14"
            fill="none"
            stroke="currentColor"
            stroke-width="1.4"
          >
            <path d="M2 4.5h12V14H2zM2 7.5h12M5 2.5v3M11 2.5v3" />
          </svg>
        </button>
      </template>
    </span>
    <span v-if="wrong" :id="id" class="mt-1 block text-sm font-semibold text-rust" role="alert">{{
      wrong
    }}</span>
  </span>
</template>
