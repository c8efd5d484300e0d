<script setup lang="ts">
import { computed } from 'vue'

interface Font {
  source: string
  name: string
}
const props = defineProps<{ label: string; font: Font | null }>()
const emit = defineEmits<{ set: [font: Font | null] }>()
const FONTS: Record<string, string> = {
  '': 'left open',
  'system/sans': 'The device’s own',
  'system/serif': 'The device’s own, with serifs',
  'shipped/Figtree': 'Figtree',
  'shipped/Bricolage Grotesque': 'Bricolage Grotesque',
  'shipped/Literata': 'Literata',
  'shipped/Nunito': 'Nunito',
  site: 'The site’s own, by name',
}
const key = computed(() => (!props.font ? '' : props.font.source === 'site' ? 'site' : `${props.font.source}/${props.font.name}`))
function choose(event: Event) {
  const wanted = (event.target as HTMLSelectElement).value
  const [source = '', name = ''] = wanted.split('/')
  emit('set', !wanted ? null : wanted === 'site' ? { source: 'site', name: props.font?.name ?? 'Georgia' } : { source, name })
}
</script>

<template>
  <span class="flex gap-2">
    <select class="input" :aria-label="label" :value="key" @change="choose">
      <option v-for="(name, id) in FONTS" :key="id" :value="id">{{ name }}</option>
    </select>
    <input
      v-if="font?.source === 'site'"
      class="input"
      :aria-label="`${label}: its name`"
      :value="font.name"
      @change="emit('set', { source: 'site', name: ($event.target as HTMLInputElement).value.trim() || font.name })"
    />
  </span>
</template>
