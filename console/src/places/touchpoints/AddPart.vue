<script setup lang="ts">
import { Menu, MenuButton, MenuItems } from '@headlessui/vue'
import type { Addable } from '@/api/touchpoints'
import type { Part } from '@/api/document'
import MenuRow from '@/parts/MenuRow.vue'

/** What can be added, by kind; always in view, and it opens upwards. */
defineProps<{ parts: Addable['parts'] }>()
const emit = defineEmits<{ add: [pattern: Part] }>()
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="btn w-full justify-center">+ Add a part</MenuButton>
    <MenuItems
      class="pop absolute bottom-full left-2 z-20 mb-1 grid max-h-[70vh] w-[34rem] grid-cols-2 gap-x-3 overflow-auto"
    >
      <div v-for="(kinds, group) in parts" :key="group" class="mb-1">
        <p class="px-2 pt-1 text-xs font-semibold text-ink-2">{{ group }}</p>
        <MenuRow v-for="(pattern, name) in kinds" :key="name" class="py-1" @click="emit('add', pattern)">{{
          name
        }}</MenuRow>
      </div>
    </MenuItems>
  </Menu>
</template>
