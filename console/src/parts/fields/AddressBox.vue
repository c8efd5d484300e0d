<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, useId, watch } from 'vue'
import { usePages, useKnownSites } from '@/api/sites'
import { readAddress } from '@/api/touchpoints'
import { vTyped } from '@/lib/typed'

/**
 * Where something leads, as the owner writes it: it says what it was taken for, and offers the pages that
 * were seen.
 */
const props = defineProps<{ label: string; value: string; placeholder?: string; bad?: string | undefined }>()
const emit = defineEmits<{ set: [address: string, kind: string] }>()
const id = useId()
const { data: sites } = useKnownSites()
const { data: pages } = usePages(computed(() => sites.value?.[0]?.id ?? 0))
const said = ref('')
const wrong = ref(false)
let asked = 0

async function look(text: string) {
  const turn = ++asked
  if (!text.trim()) return void ((said.value = ''), (wrong.value = false))
  const found = await readAddress(text)
  if (turn !== asked) return undefined
  wrong.value = !found.kind
  said.value = found.kind ? `Taken for ${found.words}` : found.words
  return found
}
const later = useDebounceFn(look, 250)
async function take(text: string) {
  const found = await look(text)
  emit('set', found?.kind ? found.address : text.trim(), found?.kind ?? '')
}
watch(
  () => props.value,
  (text) => void look(text),
  { immediate: true },
)
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div>
    <label class="text-sm text-ink-2" :for="id">{{ label }}</label>
    <input
      :id="id"
      v-typed="value"
      class="input"
      :list="`${id}-pages`"
      :placeholder="placeholder"
      :aria-describedby="`${id}-said`"
      autocomplete="off"
      spellcheck="false"
      @input="later(text($event))"
      @change="take(text($event))"
    />
    <datalist :id="`${id}-pages`">
      <option v-for="one in pages ?? []" :key="one.path" :value="one.path">{{ one.title }}</option>
    </datalist>
    <p
      :id="`${id}-said`"
      class="mt-0.5 text-sm"
      :class="bad || wrong ? 'font-semibold text-rust' : 'text-ink-2'"
      aria-live="polite"
    >
      {{ bad || said }}
    </p>
  </div>
</template>
