<script setup lang="ts">
import { Menu, MenuButton, MenuItems } from '@headlessui/vue'
import { OUTCOMES, type Outcome } from '@/lib/names'

/** How it ended, chosen from a menu. */
import MenuRow from '@/parts/MenuRow.vue'
const emit = defineEmits<{ finish: [outcome: Outcome, said: string] }>()
</script>

<template>
  <Menu as="div" class="relative" data-key="f">
    <MenuButton class="btn">Finish <span aria-hidden="true">▾</span></MenuButton>
    <MenuItems class="pop absolute right-0 mt-1 w-44">
      <MenuRow
        v-for="(name, outcome) in OUTCOMES"
        :key="outcome"
        @click="emit('finish', outcome, name.toLowerCase())"
        >{{ name }}</MenuRow
      >
    </MenuItems>
  </Menu>
</template>
