<script setup lang="ts">
import { MenuItem } from '@headlessui/vue'

/**
 * One row of a menu: a place to go (`to`), an address (`href`), or something that is done. `bad` takes
 * something away.
 */
defineOptions({ inheritAttrs: false })
const props = defineProps<{ to?: string | object; href?: string; bad?: boolean }>()
const emit = defineEmits<{ click: [event: Event] }>()
const kind = props.to ? 'RouterLink' : props.href ? 'a' : 'button'
</script>

<template>
  <MenuItem v-slot="{ active }">
    <component
      :is="kind"
      v-bind="{ ...$attrs, ...(to ? { to } : href ? { href } : { type: 'button' }) }"
      class="block w-full rounded px-2 py-1.5 text-left"
      :class="{ 'bg-petrol-wash': active, 'text-rust': bad }"
      @click="emit('click', $event)"
      ><slot
    /></component>
  </MenuItem>
</template>
