<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
defineProps<{ words: string }>()
</script>

<template>
  <Popover as="span" class="relative inline-block">
    <PopoverButton class="rounded-t border-b-2 border-petrol-2 bg-petrol-wash px-1.5 font-semibold text-petrol hover:bg-petrol-tint">{{
      words
    }}</PopoverButton>
    <PopoverPanel as="div" class="pop absolute bottom-full left-0 mb-1 w-72 font-body text-base"><slot /></PopoverPanel>
  </Popover>
</template>
