<script setup lang="ts">
import { computed, ref } from 'vue'
import { useChannels } from '@/api/channels'
import { useTouchpoints } from '@/api/touchpoints'
import type { Does, TouchpointDocument } from '@/api/document'
import { ACTIONS } from '../words'
import AddressBox from '@/parts/fields/AddressBox.vue'
import LibraryPicker from '@/parts/fields/LibraryPicker.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'

/** What a click does. `only` leaves out what makes no sense where it stands. */
const props = defineProps<{ does: Does; document: TouchpointDocument; without?: string[]; label?: string }>()
const emit = defineEmits<{ set: [does: Does] }>()
const { data: others } = useTouchpoints()
const choosing = ref(false)
const actions = computed(() =>
  Object.fromEntries(Object.entries(ACTIONS).filter(([key]) => !props.without?.includes(key))),
)
const steps = computed(() => ({
  ...(props.does.next === null ? { '': 'choose one' } : {}),
  ...Object.fromEntries(props.document.steps.map((one) => [one.id, one.name || one.id])),
}))
const touchpoints = computed(() => ({
  '': 'choose one',
  ...Object.fromEntries((others.value ?? []).map((one) => [one.slug, one.name])),
}))
const { data: day } = useChannels()
const channels = computed(() => ({
  '': 'choose one',
  ...Object.fromEntries((day.value?.channels ?? []).map((one) => [one.public_id, one.document.label])),
}))
const ADDRESS: Record<string, [string, string]> = {
  page: ['Address', 'a page of your site, or example.org'],
  mail: ['Mail address', 'you@your-business.example'],
  phone: ['Number', 'as you would write it'],
}
/** A mail address or a number that stands where a page was meant is what it is. */
const MEANS: Record<string, Does['action']> = {
  mail: 'mail',
  phone: 'phone',
  page: 'page',
  'site page': 'page',
  place: 'page',
}
const lead = (address: string, kind: string) => set({ address, action: MEANS[kind] ?? props.does.action })
const set = (patch: Partial<Does>) => emit('set', { ...props.does, ...patch })
</script>

<template>
  <div class="grid gap-2">
    <SelectBox
      :label="label ?? 'What a click does'"
      :value="does.action"
      :options="actions"
      @set="set({ action: $event as Does['action'] })"
    />
    <SelectBox
      v-if="does.action === 'send' || does.action === 'step'"
      label="The step that comes next"
      :value="does.next ?? ''"
      :options="steps"
      @set="set({ next: $event || null })"
    />
    <AddressBox
      v-if="ADDRESS[does.action]"
      :label="ADDRESS[does.action]?.[0] ?? ''"
      :placeholder="ADDRESS[does.action]?.[1] ?? ''"
      :value="does.address"
      @set="lead"
    />
    <SelectBox
      v-if="does.action === 'touchpoint'"
      label="Which touchpoint"
      :value="does.touchpoint"
      :options="touchpoints"
      @set="set({ touchpoint: $event })"
    />
    <SelectBox
      v-if="does.action === 'channel'"
      label="Which channel"
      :value="does.channel"
      :options="channels"
      @set="set({ channel: $event })"
    />
    <WordsBox
      v-if="does.action === 'spot'"
      label="Where on the page"
      placeholder="top, bottom, or the id of an element"
      :value="does.spot"
      @set="set({ spot: $event })"
    />
    <button
      v-if="does.action === 'file'"
      type="button"
      class="btn justify-self-start"
      @click="choosing = true"
    >
      {{ does.asset ? 'Another file' : 'Choose a file' }}
    </button>
    <TickBox
      v-if="does.action === 'page'"
      :value="does.tab === 'new'"
      @set="set({ tab: $event ? 'new' : 'same' })"
      >in a new tab</TickBox
    >
    <TickBox v-if="does.action !== 'send'" :value="does.goal" @set="set({ goal: $event })"
      >this reaches the goal</TickBox
    >
    <LibraryPicker
      v-if="choosing"
      kind="file"
      @close="choosing = false"
      @pick="(set({ asset: $event.public_id }), (choosing = false))"
    />
  </div>
</template>
