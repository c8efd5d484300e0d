<script setup lang="ts">
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { PartOf, TouchpointDocument } from '@/api/document'
import { INPUTS } from '../words'
import OptionRows from './OptionRows.vue'

defineProps<{ part: PartOf<'field'>; document: TouchpointDocument }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
</script>

<template>
  <div class="grid gap-2">
    <SelectBox
      label="What is filled in"
      :value="part.input"
      :options="INPUTS"
      @set="emit('set', { input: $event })"
    />
    <WordsBox label="Label" :value="part.label" @set="emit('set', { label: $event })" />
    <WordsBox
      v-if="!['several', 'slot', 'hidden', 'date'].includes(part.input)"
      label="Hint inside it"
      :value="part.hint"
      @set="emit('set', { hint: $event })"
    />
    <OptionRows
      v-if="part.input === 'choice' || part.input === 'several'"
      :options="part.options"
      :document="document"
      @set="emit('set', { options: $event })"
    />
    <span v-if="part.input === 'number'" class="flex items-center gap-2">
      from
      <NumberBox
        label="Least"
        :value="part.least"
        :least="-1000000"
        :most="1000000"
        empty="any"
        @set="emit('set', { least: $event })"
      />
      to
      <NumberBox
        label="Most"
        :value="part.most"
        :least="-1000000"
        :most="1000000"
        empty="any"
        @set="emit('set', { most: $event })"
      />
    </span>
    <template v-if="part.input === 'slot'">
      <span class="flex items-center gap-2">
        <NumberBox
          label="Minutes a call takes"
          :value="part.minutes"
          :least="5"
          :most="480"
          :step="5"
          @set="emit('set', { minutes: $event ?? 30 })"
        />
        minutes each
      </span>
      <span class="flex items-center gap-2">
        <NumberBox
          label="Calls at once"
          :value="part.capacity"
          :least="1"
          :most="50"
          @set="emit('set', { capacity: $event ?? 1 })"
        />
        at once
      </span>
      <span class="flex items-center gap-2">
        at least
        <NumberBox
          label="Minutes of notice"
          :value="part.notice"
          :least="0"
          :most="20160"
          :step="15"
          @set="emit('set', { notice: $event ?? 60 })"
        />
        minutes ahead
      </span>
      <p class="text-sm text-ink-2">The times are those of your opening hours, fourteen days ahead.</p>
    </template>
    <WordsBox
      v-if="part.input === 'hidden'"
      label="What is kept with it"
      :value="part.value"
      @set="emit('set', { value: $event })"
    />
    <TickBox v-if="part.input !== 'hidden'" :value="part.required" @set="emit('set', { required: $event })"
      >must be filled in</TickBox
    >
  </div>
</template>
