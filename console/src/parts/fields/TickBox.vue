<script setup lang="ts">
defineProps<{ value: boolean; disabled?: boolean }>()
const emit = defineEmits<{ set: [value: boolean] }>()
</script>

<template>
  <label class="flex items-start gap-2">
    <input
      type="checkbox"
      class="mt-1"
      :checked="value"
      :disabled="disabled"
      @change="emit('set', ($event.target as HTMLInputElement).checked)"
    />
    <span><slot /></span>
  </label>
</template>
