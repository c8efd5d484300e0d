<script setup lang="ts">
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
} from '@headlessui/vue'
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { find } from '@/api/follow-ups'
import { sitesOptions, usePages } from '@/api/sites'
import { startersOptions, touchpointsOptions } from '@/api/touchpoints'
import { useDeeds } from './deeds'
import MarkedText from './MarkedText.vue'
import { finding, PLACES, typedSince, type Choice } from './find'

const router = useRouter()
const text = ref('')
const asked = refDebounced(text, 150)
watch(finding, () => (text.value = ''))
const { data: people, isFetching } = useQuery({
  queryKey: computed(() => ['find', asked.value]),
  queryFn: () => find(asked.value),
  enabled: computed(() => finding.value && asked.value.trim().length > 0),
})
const { data: touchpoints } = useQuery({ ...touchpointsOptions, enabled: computed(() => finding.value) })
const { data: starters } = useQuery({ ...startersOptions, enabled: computed(() => finding.value) })
const { data: sites } = useQuery({ ...sitesOptions, enabled: computed(() => finding.value) })
const { data: pages } = usePages(computed(() => (finding.value ? (sites.value?.[0]?.id ?? 0) : 0)))
const deeds = useDeeds(finding)
const found = computed<Choice[]>(() => [
  ...deeds.value,
  ...PLACES,
  ...(touchpoints.value ?? []).map((one) => ({
    key: `tp${one.id}`,
    name: one.name,
    about: 'Touchpoint',
    words: `${one.purpose} ${one.stance} ${one.slug} ${one.pages.join(' ')}`,
    go: `/touchpoints/${one.id}`,
  })),
  ...(starters.value ?? []).map((one) => ({
    key: `st${one.key}`,
    name: `New: ${one.name}`,
    about: 'Starter',
    words: `${one.about} ${one.purpose} ${one.stance}`,
    go: `/touchpoints?new=${one.key}`,
  })),
  ...(pages.value ?? []).slice(0, 300).map((one) => ({
    key: `pg${one.path}`,
    name: one.path,
    about: one.title || 'Page of your site',
    words: 'page rehearse',
    go: `/touchpoints/rehearse?path=${encodeURIComponent(one.path)}`,
  })),
])
const choices = computed<Choice[]>(() => {
  const wanted = text.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  // Of what can be done with somebody their name only says with whom.
  const text_of = (one: Choice) => `${one.name} ${one.run ? '' : one.about} ${one.words ?? ''}`.toLowerCase()
  const some = wanted.length
    ? found.value.filter((one) => wanted.every((word) => text_of(one).includes(word)))
    : PLACES.filter((one) => one.main)
  // Whom an earlier text found is nobody to go to by the one that stands there.
  const who = wanted.length && asked.value === text.value ? (people.value ?? []) : []
  return [
    ...who.map((one) => ({
      key: `p${one.person_id}`,
      name: one.name || one.address,
      about: one.where !== 'name' ? `${one.where}: ${one.text}` : one.address || 'Person',
      go: one.followup_id === null ? `/people/${one.person_id}` : `/follow-up/${one.followup_id}`,
    })),
    ...some.slice(0, 40),
  ]
})
/** Enter before anything has come takes the first of what comes. */
const hurried = ref(false)
const settled = computed(() => asked.value === text.value && !isFetching.value)
watch(text, () => (hurried.value = false))
watch([hurried, settled], ([wanted, there]) => wanted && there && choose(choices.value[0] ?? null))
/** What was typed before the box was there stands in it, as if it had been typed now. */
async function catchUp(event: FocusEvent) {
  const keys = typedSince()
  const input = event.target as HTMLInputElement
  const letters = keys.filter((key) => key !== 'Enter').join('')
  if (!letters) return
  input.value = letters
  input.dispatchEvent(new InputEvent('input', { bubbles: true }))
  await nextTick()
  hurried.value = keys.includes('Enter')
}
function choose(choice: Choice | null) {
  hurried.value = false
  if (!choice) return
  finding.value = false
  if (choice.run) choice.run()
  else if (choice.go) void router.push(choice.go)
}
</script>

<template>
  <Dialog :open="finding" class="relative z-50" @close="finding = false">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center p-4 pt-24">
      <DialogPanel class="pop w-[32rem] max-w-full p-2">
        <Combobox v-slot="{ activeOption }" :model-value="null" nullable @update:model-value="choose">
          <ComboboxInput
            class="input"
            aria-label="Find or do"
            placeholder="A name, an address, or what to do"
            @change="text = $event.target.value"
            @focus="catchUp"
            @keydown.enter="hurried = !activeOption"
          />
          <ComboboxOptions static class="mt-2 max-h-80 overflow-auto">
            <ComboboxOption v-for="choice in choices" :key="choice.key" v-slot="{ active }" :value="choice">
              <div
                class="flex justify-between gap-4 rounded px-2.5 py-1.5"
                :class="{ 'bg-petrol-wash': active }"
              >
                <span class="font-semibold">{{ choice.name }}</span><span
                  class="truncate text-ink-2"
                  dir="auto"
                  ><MarkedText :text="choice.about"
                /></span>
              </div>
            </ComboboxOption>
            <li v-if="!choices.length" class="px-2.5 py-1.5 text-ink-2">
              Nobody with open work, nothing to do and no place by that name.
            </li>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
