<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
defineProps<{ words: string; wide?: boolean }>()
</script>

<template>
  <Popover as="span" class="inline">
    <PopoverButton
      class="inline rounded-t border-b-2 border-petrol-2 bg-petrol-wash box-decoration-clone px-1.5 text-left font-semibold text-petrol hover:bg-petrol-tint"
      >{{ words }}</PopoverButton
    >
    <PopoverPanel
      as="div"
      class="pop absolute bottom-full left-5 z-30 mb-1 max-h-[min(30rem,70vh)] max-w-[calc(100vw-2.5rem)] overflow-auto font-body text-base leading-6"
      :class="wide ? 'w-[30rem]' : 'w-88'"
      ><slot
    /></PopoverPanel>
  </Popover>
</template>
