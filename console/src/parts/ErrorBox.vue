<script setup lang="ts">
defineProps<{ error: Error | null; again?: () => void }>()
</script>

<template>
  <div
    v-if="error"
    role="alert"
    class="flex items-center gap-4 rounded-md border border-rust bg-rust-tint px-3 py-2 text-rust"
  >
    <span class="flex-1">{{ error.message }}</span>
    <button v-if="again" type="button" class="btn" @click="again">Try again</button>
  </div>
</template>
