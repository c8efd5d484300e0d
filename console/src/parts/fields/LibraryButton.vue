<script setup lang="ts">
import { computed, ref } from 'vue'
import { useLibrary, type AssetKind } from '@/api/library'
import LibraryPicker from './LibraryPicker.vue'

const props = defineProps<{ kind: AssetKind; label: string; value: string | null }>()
const emit = defineEmits<{ set: [asset: string | null] }>()
const { data: assets } = useLibrary(() => props.kind)
const open = ref(false)
const name = computed(() => assets.value?.find((one) => one.public_id === props.value)?.name ?? props.value)
</script>

<template>
  <div>
    <p class="text-sm text-ink-2">{{ label }}</p>
    <span class="flex items-center gap-2">
      <span v-if="value" class="min-w-0 truncate font-semibold">{{ name }}</span>
      <button type="button" class="btn" @click="open = true">{{ value ? 'Another' : 'Choose' }}</button>
      <button v-if="value" type="button" class="btn" @click="emit('set', null)">None</button>
    </span>
    <LibraryPicker
      v-if="open"
      :kind="kind"
      @close="open = false"
      @pick="(emit('set', $event.public_id), (open = false))"
    />
  </div>
</template>
