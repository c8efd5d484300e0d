<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { OUTCOMES, type Outcome } from './words'

/** How it ended, chosen from a menu. */
const emit = defineEmits<{ finish: [outcome: Outcome, said: string] }>()
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="btn">Finish <span aria-hidden="true">▾</span></MenuButton>
    <MenuItems class="pop absolute right-0 mt-1 w-44">
      <MenuItem v-for="(name, outcome) in OUTCOMES" :key="outcome" v-slot="{ active }">
        <button
          type="button"
          class="w-full rounded px-2 py-1.5 text-left"
          :class="{ 'bg-petrol-wash': active }"
          @click="emit('finish', outcome, name.toLowerCase())"
        >
          {{ name }}
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
