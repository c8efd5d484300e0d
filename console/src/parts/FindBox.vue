<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/vue'
import { useQuery } from '@tanstack/vue-query'
import { onKeyStroke, refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { find } from '@/api/follow-ups'
import { finding } from './find'

interface Choice {
  key: string
  name: string
  about: string
  go: string
}

const router = useRouter()
const text = ref('')
const asked = refDebounced(text, 150)
onKeyStroke('k', (event) => {
  if (!event.ctrlKey && !event.metaKey) return
  event.preventDefault()
  finding.value = true
})
watch(finding, () => (text.value = ''))
const { data: people } = useQuery({
  queryKey: computed(() => ['find', asked.value]),
  queryFn: () => find(asked.value),
  enabled: computed(() => finding.value && asked.value.trim().length > 0),
})
const PLACES: Choice[] = [
  { key: 'f', name: 'Follow-up', about: 'Go to', go: '/follow-up' },
  { key: 't', name: 'Touchpoints', about: 'Go to', go: '/touchpoints' },
  { key: 'n', name: 'New touchpoint', about: 'Do', go: '/touchpoints?new' },
  { key: 'h', name: 'Hours and promise', about: 'Go to', go: '/hours' },
  { key: 'b', name: 'Business and snippet', about: 'Go to', go: '/business' },
]
const choices = computed<Choice[]>(() => {
  const wanted = text.value.trim().toLowerCase()
  const places = PLACES.filter((one) => one.name.toLowerCase().includes(wanted))
  const found = wanted ? (people.value ?? []).filter((one) => one.followup_id !== null) : []
  return [
    ...found.map((one) => ({
      key: `p${one.person_id}`,
      name: one.name || one.address,
      about: one.name ? one.address : 'Person',
      go: `/follow-up/${one.followup_id}`,
    })),
    ...places,
  ]
})
function choose(choice: Choice | null) {
  if (!choice) return
  finding.value = false
  void router.push(choice.go)
}
</script>

<template>
  <Dialog :open="finding" class="relative z-50" @close="finding = false">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center p-4 pt-24">
      <DialogPanel class="pop w-[32rem] max-w-full p-2">
        <Combobox :model-value="null" nullable @update:model-value="choose">
          <ComboboxInput
            class="input"
            aria-label="Find or do"
            placeholder="A name, an address, or what to do"
            @change="text = $event.target.value"
          />
          <ComboboxOptions static class="mt-2 max-h-80 overflow-auto">
            <ComboboxOption v-for="choice in choices" :key="choice.key" v-slot="{ active }" :value="choice">
              <div class="flex justify-between gap-4 rounded px-2.5 py-1.5" :class="{ 'bg-petrol-wash': active }">
                <span class="font-semibold">{{ choice.name }}</span><span class="truncate text-ink-2">{{ choice.about }}</span>
              </div>
            </ComboboxOption>
            <li v-if="!choices.length" class="px-2.5 py-1.5 text-ink-2">Nobody with open work, and nothing to do, by that name.</li>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
