<script setup lang="ts">
defineProps<{ label: string; value: string; options: Record<string, string> }>()
const emit = defineEmits<{ set: [value: string] }>()
</script>

<template>
  <select class="input" :aria-label="label" :value="value" @change="emit('set', ($event.target as HTMLSelectElement).value)">
    <option v-for="(name, key) in options" :key="key" :value="key">{{ name }}</option>
  </select>
</template>
