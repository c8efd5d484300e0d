<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import { computed } from 'vue'
import type { Font } from '@/api/document'

/** A typeface: the device's, one that is shipped, or the site's own by name; `open` lets it be left open. */
const props = defineProps<{ label: string; font: Font | null; open?: boolean }>()
const emit = defineEmits<{ set: [font: Font | null] }>()
const FONTS: Record<string, string> = {
  'system/sans': 'The device’s own',
  'system/serif': 'The device’s own, with serifs',
  'system/rounded': 'The device’s own, rounded',
  'system/mono': 'The device’s own, fixed width',
  'shipped/Figtree': 'Figtree',
  'shipped/Bricolage Grotesque': 'Bricolage Grotesque',
  'shipped/Literata': 'Literata',
  'shipped/Nunito': 'Nunito',
  site: 'The site’s own, by name',
}
const key = computed(() =>
  !props.font ? '' : props.font.source === 'site' ? 'site' : `${props.font.source}/${props.font.name}`,
)
function choose(event: Event) {
  const wanted = (event.target as HTMLSelectElement).value
  const [source, name = ''] = wanted.split('/') as [Font['source'], string?]
  emit(
    'set',
    !wanted
      ? null
      : wanted === 'site'
        ? { source, name: props.font?.source === 'site' ? props.font.name : 'Georgia' }
        : { source, name },
  )
}
function named(event: Event) {
  const name = (event.target as HTMLInputElement).value.replace(/[^\w .,'-]/g, '').trim()
  if (name) emit('set', { source: 'site', name })
}
</script>

<template>
  <span class="flex gap-2">
    <select class="input" :aria-label="label" :value="key" @change="choose">
      <option v-if="open" value="">left open</option>
      <option v-for="(name, id) in FONTS" :key="id" :value="id">{{ name }}</option>
    </select>
    <input
      v-if="font?.source === 'site'"
      v-typed="font.name"
      class="input"
      :aria-label="`${label}: its name`"
      @change="named"
    />
  </span>
</template>
