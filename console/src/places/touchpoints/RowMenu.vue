<script setup lang="ts">
import { Menu, MenuButton, MenuItems } from '@headlessui/vue'
import type { Summary } from '@/api/touchpoints'
import MenuRow from '@/parts/MenuRow.vue'

/** What else can be done with a touchpoint of the list. */
defineProps<{ row: Summary; rehearsal: object }>()
const emit = defineEmits<{ rename: []; copy: []; remove: [] }>()
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="btn px-2!" :aria-label="`More for ${row.name}`">More</MenuButton>
    <MenuItems class="pop absolute right-0 w-48">
      <MenuRow @click="emit('rename')">Rename</MenuRow>
      <MenuRow @click="emit('copy')">Make a copy</MenuRow>
      <MenuRow bad @click="emit('remove')">Throw away</MenuRow>
      <MenuRow :to="`/touchpoints/${row.id}/answers`">Its answers</MenuRow>
      <MenuRow
        v-if="row.state === 'live' && row.hosted[0]"
        :href="row.hosted[0]"
        target="_blank"
        rel="noopener"
        >Its own page</MenuRow
      >
      <MenuRow :to="rehearsal">Rehearse a visit</MenuRow>
      <MenuRow :href="`/api/touchpoints/${row.id}/file`" download>Save as a file</MenuRow>
    </MenuItems>
  </Menu>
</template>
