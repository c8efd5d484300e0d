<script setup lang="ts">
import { Menu, MenuButton, MenuItems } from '@headlessui/vue'
import { ArrowUturnLeftIcon, ArrowUturnRightIcon } from '@heroicons/vue/20/solid'
import { computed, ref, watch } from 'vue'
import type { TouchpointDocument } from '@/api/document'
import type { Draft } from '@/api/touchpoints'
import { useClock } from '@/lib/clock'
import { saidTime } from '@/lib/time'
import { PURPOSES, STANCES } from './words'
import MenuRow from '@/parts/MenuRow.vue'

const props = defineProps<{ draft: Draft; status: string }>()
const emit = defineEmits<{
  rename: [name: string]
  turn: [into: { purpose?: TouchpointDocument['purpose']; stance?: TouchpointDocument['stance'] }]
  back: [way: 'undo' | 'redo']
  history: []
  live: []
  off: []
  copy: []
  remove: []
}>()
const { zone, now } = useClock()
const name = ref(props.draft.name)
watch(
  () => props.draft.name,
  (fresh) => (name.value = fresh),
)
const live = computed(() => props.draft.state === 'live')
const said = computed(() =>
  props.status === 'saved'
    ? `Saved ${saidTime(props.draft.saved_at, now.value, zone.value)}`
    : props.status === 'not saved'
      ? 'Not saved'
      : 'Saving …',
)
const word = computed(() => {
  const changes = props.draft.changes.length
  if (props.draft.live_number === null) return 'Turn on'
  const count = changes ? ` · ${changes} ${changes === 1 ? 'change' : 'changes'}` : ''
  if (!live.value) return `Turn on${count}`
  return changes ? `Put live${count}` : ''
})
function renamed() {
  if (name.value.trim() && name.value !== props.draft.name) emit('rename', name.value)
}
const value = (event: Event) => (event.target as HTMLSelectElement).value
</script>

<template>
  <header class="flex flex-wrap items-center gap-2 border-b border-line bg-sheet px-5 py-2">
    <RouterLink to="/touchpoints" class="btn px-2!" aria-label="Back to all touchpoints">←</RouterLink>
    <h1 class="sr-only">{{ draft.name }}</h1>
    <input
      v-model="name"
      class="max-w-72 rounded border border-transparent px-1 py-1 font-head text-xl font-bold hover:border-line"
      :size="Math.max(6, name.length)"
      aria-label="Name of the touchpoint"
      @change="renamed"
    />
    <select
      class="input w-auto!"
      aria-label="What it is for"
      :value="draft.purpose"
      @change="emit('turn', { purpose: value($event) as TouchpointDocument['purpose'] })"
    >
      <option v-for="(words, key) in PURPOSES" :key="key" :value="key">{{ words }}</option>
    </select>
    <select
      class="input w-auto!"
      aria-label="How it stands"
      :value="draft.stance"
      @change="emit('turn', { stance: value($event) as TouchpointDocument['stance'] })"
    >
      <option v-for="(words, key) in STANCES" :key="key" :value="key">{{ words }}</option>
    </select>
    <span class="text-sm text-ink-2" role="status">{{ said }} · version {{ draft.number }}</span>
    <span class="flex gap-1">
      <button
        type="button"
        class="btn px-2!"
        :disabled="!draft.can_undo"
        aria-label="Undo"
        title="Undo (Ctrl Z)"
        @click="emit('back', 'undo')"
      >
        <ArrowUturnLeftIcon class="size-4" />
      </button>
      <button
        type="button"
        class="btn px-2!"
        :disabled="!draft.can_redo"
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"
        @click="emit('back', 'redo')"
      >
        <ArrowUturnRightIcon class="size-4" />
      </button>
    </span>
    <span class="ml-auto flex items-center gap-2">
      <span v-if="draft.changed_since_live" class="font-semibold text-brass">{{
        live ? 'changed since it went live' : 'off, and changed since it was on'
      }}</span>
      <span v-else-if="live" class="font-semibold text-moss">● On</span>
      <button type="button" class="btn" @click="emit('history')">Look back</button>
      <Menu as="div" class="relative">
        <MenuButton class="btn">More</MenuButton>
        <MenuItems class="pop absolute right-0 w-60">
          <MenuRow v-if="live && draft.hosted[0]" :href="draft.hosted[0]" target="_blank" rel="noopener"
            >Its own page</MenuRow
          >
          <MenuRow :to="`/touchpoints/${draft.id}/answers`">Its answers</MenuRow>
          <MenuRow :href="`/api/touchpoints/${draft.id}/file`" download>Save it as a file</MenuRow>
          <MenuRow @click="emit('copy')">Make a copy</MenuRow>
          <MenuRow bad @click="emit('remove')">Throw it away</MenuRow>
        </MenuItems>
      </Menu>
      <button v-if="live" type="button" class="btn" @click="emit('off')">Turn off</button>
      <button v-if="word" type="button" class="btn btn-main" @click="emit('live')">{{ word }}</button>
    </span>
  </header>
</template>
