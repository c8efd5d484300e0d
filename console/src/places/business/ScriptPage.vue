<script setup lang="ts">
import BrandMark from '@/parts/BrandMark.vue'
import words from '../../../../docs/script.md'
</script>

<template>
  <div class="mx-auto max-w-4xl p-6">
    <BrandMark />
    <!-- eslint-disable-next-line vue/no-v-html -- our own page, made when the console is built -->
    <article class="prose mt-5" v-html="words" />
  </div>
</template>
