<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { computed } from 'vue'
import ChannelsForm from './forms/ChannelsForm.vue'
import FieldForm from './forms/FieldForm.vue'
import MediaForm from './forms/MediaForm.vue'
import OfferForm from './forms/OfferForm.vue'
import QuestionForm from './forms/QuestionForm.vue'
import TalkForm from './forms/TalkForm.vue'
import ToolForm from './forms/ToolForm.vue'
import WordsForm from './forms/WordsForm.vue'
import DoesForm from './forms/DoesForm.vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { Part, TouchpointDocument } from '@/api/document'

const props = defineProps<{ part: Part; document: TouchpointDocument; rowWith: string }>()
const emit = defineEmits<{ set: [what: string, patch: Record<string, unknown>]; row: [joined: boolean] }>()
const set = (patch: Record<string, unknown>) => emit('set', Object.keys(patch)[0] ?? 'part', patch)
const canBeHidden = computed(
  () =>
    props.part.kind !== 'button' || props.part.does.action !== 'send' || props.document.purpose !== 'sign-up',
)
const device = (name: 'desktop' | 'phone', on: boolean) => {
  const kept = (['desktop', 'phone'] as const).filter((one) =>
    one === name ? on : props.part.on.includes(one),
  )
  if (kept.length) set({ on: kept })
}
const STYLES = choices.style
</script>

<template>
  <div class="grid gap-2">
    <WordsForm v-if="part.kind === 'headline' || part.kind === 'text'" :part="part" @set="set" />
    <FieldForm v-else-if="part.kind === 'field'" :part="part" :document="document" @set="set" />
    <template v-else-if="part.kind === 'consent'">
      <WordsBox label="What they agree to" :rows="2" :value="part.text" @set="set({ text: $event })" />
      <TickBox :value="part.required" @set="set({ required: $event })">must be ticked</TickBox>
    </template>
    <template v-else-if="part.kind === 'button'">
      <WordsBox label="Words" :value="part.label" @set="set({ label: $event })" />
      <DoesForm :does="part.does" :document="document" @set="set({ does: $event })" />
      <SelectBox
        v-if="part.does.action !== 'close'"
        label="How it looks"
        :value="part.style"
        :options="STYLES"
        @set="set({ style: $event })"
      />
    </template>
    <MediaForm v-else-if="part.kind === 'picture' || part.kind === 'video'" :part="part" @set="set" />
    <OfferForm v-else-if="part.kind === 'price' || part.kind === 'countdown'" :part="part" @set="set" />
    <QuestionForm
      v-else-if="part.kind === 'question' || part.kind === 'score'"
      :part="part"
      :document="document"
      @set="set"
    />
    <p v-else-if="part.kind === 'reply'" class="text-sm text-ink-2">
      Here visitors read when somebody answers, by your hours and your promise.
    </p>
    <ChannelsForm v-else-if="part.kind === 'channels'" :part="part" @set="set" />
    <TalkForm v-else-if="part.kind === 'talk'" :part="part" @set="set" />
    <ToolForm v-else :part="part" :document="document" @set="set" />

    <div class="mt-1 grid gap-1 border-t border-line-2 pt-2">
      <span class="flex items-center gap-3">
        <span class="w-20 text-sm text-ink-2">Shown on</span>
        <TickBox :value="part.on.includes('desktop')" @set="device('desktop', $event)">desktop</TickBox>
        <TickBox :value="part.on.includes('phone')" @set="device('phone', $event)">phone</TickBox>
      </span>
      <TickBox v-if="canBeHidden" :value="part.hidden" @set="set({ hidden: $event })">hidden</TickBox>
      <TickBox v-if="rowWith" :value="part.row !== null" @set="emit('row', $event)"
        >side by side with “{{ rowWith }}”</TickBox
      >
      <span v-if="part.row !== null" class="flex items-center gap-2">
        <NumberBox
          label="Share of the row"
          :value="part.share"
          :least="10"
          :most="100"
          :step="5"
          @set="set({ share: $event ?? 50 })"
        />
        % of the row
      </span>
    </div>
  </div>
</template>
