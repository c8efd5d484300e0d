<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

/** A dialog over the page, named by its title. `full` takes the whole screen and brings a head of its own. */
defineOptions({ inheritAttrs: false })
withDefaults(defineProps<{ title?: string; open?: boolean; full?: boolean }>(), { title: '', open: true })
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div
      class="fixed inset-0 overflow-auto p-6"
      :class="{ 'flex items-start justify-center pt-24 max-md:pt-6': !full }"
    >
      <DialogPanel
        class="pop max-w-full"
        :class="full ? 'mx-auto flex h-full max-w-6xl! flex-col p-0!' : 'p-5'"
        v-bind="$attrs"
      >
        <DialogTitle v-if="title" as="h2" class="mb-2">{{ title }}</DialogTitle>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
