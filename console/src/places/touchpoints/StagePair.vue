<script setup lang="ts">
import { computed } from 'vue'
import type { Extras, SeenDocument } from '@visitor/render'
import StageFrame from './StageFrame.vue'

/** The stage on a desktop and on a phone, side by side. `known`: as somebody whose first name is known. */
defineProps<{ document: SeenDocument; step: string; selected: string | null; extras: Extras | undefined }>()
const emit = defineEmits<{
  edit: [part: string, field: string, value: string]
  select: [part: string]
  box: [width: number, height: number]
}>()
const known = defineModel<boolean>('known', { required: true })
const firstName = computed(() => (known.value ? 'Ife' : ''))
</script>

<template>
  <div
    class="flex min-h-0 flex-1 gap-4 bg-line-2 p-4 pb-2 max-md:h-[26rem] max-md:flex-none max-md:flex-col max-md:gap-1"
  >
    <!-- On a phone what a phone shows is enough. -->
    <figure class="flex min-w-0 flex-[2.6] flex-col max-md:flex-none">
      <figcaption class="mb-1 flex justify-between text-sm text-ink-2">
        <span class="max-md:hidden">desktop</span>
        <label class="flex items-center gap-1.5"
          ><input v-model="known" type="checkbox" /> as somebody whose name we know</label
        >
      </figcaption>
      <StageFrame
        class="flex-1 max-md:hidden"
        :document="document"
        :step="step"
        :width="1000"
        :height="700"
        title="Desktop"
        editable
        :selected="selected"
        :first-name="firstName"
        :extras="extras"
        @edit="(...what) => emit('edit', ...what)"
        @select="emit('select', $event)"
      />
    </figure>
    <figure class="flex min-w-0 flex-1 flex-col">
      <figcaption class="mb-1 text-sm text-ink-2">phone</figcaption>
      <StageFrame
        class="flex-1"
        :document="document"
        :step="step"
        :width="375"
        :height="700"
        title="Phone"
        editable
        :selected="selected"
        :first-name="firstName"
        :extras="extras"
        @edit="(...what) => emit('edit', ...what)"
        @select="emit('select', $event)"
        @box="(...size) => emit('box', ...size)"
      />
    </figure>
  </div>
</template>
