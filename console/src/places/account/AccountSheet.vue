<script setup lang="ts">
import BrandMark from '@/parts/BrandMark.vue'
defineProps<{ title: string }>()
</script>

<template>
  <div class="flex min-h-full items-center justify-center p-4">
    <section class="sheet flex w-[26rem] max-w-full overflow-hidden">
      <div class="hatch w-5 shrink-0 border-r-2 border-petrol" aria-hidden="true" />
      <div class="flex-1 p-7">
        <BrandMark />
        <h1 class="mt-5 mb-4">{{ title }}</h1>
        <slot />
      </div>
    </section>
  </div>
</template>
