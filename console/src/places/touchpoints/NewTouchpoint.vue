<script setup lang="ts">
import { DialogTitle } from '@headlessui/vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { takeIn, useMake, useStarters } from '@/api/touchpoints'
import { useForm } from '@/parts/form'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import StageFrame from './StageFrame.vue'
import { ASKS, PURPOSES, STANCES } from './words'
import DialogBox from '@/parts/DialogBox.vue'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const route = useRoute()
const router = useRouter()
const { data: starters } = useStarters()
const make = useMake()
const chosen = ref('')
const name = ref('')
const purpose = ref('')
const asks = ref('')
const { error, fields, busy, run } = useForm()
const purposes = computed(() =>
  Object.entries(PURPOSES).filter(([key]) => starters.value?.some((one) => one.purpose === key)),
)
const shown = computed(() =>
  (starters.value ?? []).filter(
    (one) => (!purpose.value || one.purpose === purpose.value) && (!asks.value || one.asks === asks.value),
  ),
)
const starter = computed(() => shown.value.find((one) => one.key === chosen.value) ?? shown.value[0])
watch(
  () => props.open,
  (open) => {
    if (!open) return
    name.value = ''
    chosen.value = typeof route.query.new === 'string' ? route.query.new : ''
  },
  { immediate: true },
)
async function go() {
  const one = starter.value
  if (!one) return
  const draft = await make.mutateAsync({ starter: one.key, name: name.value.trim() || one.name })
  await router.push(`/touchpoints/${draft.id}`)
}
async function fromFile(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  await run(async () => {
    const draft = await takeIn(
      await file.text(),
      name.value.trim() || file.name.replace(/\.touchpoint\.json$|\.json$/, ''),
    )
    await router.push(`/touchpoints/${draft.id}`)
  })
}
const places = computed(() => Object.entries(fields.value).filter(([key]) => key.startsWith('file.')))
</script>

<template>
  <DialogBox full :open="open" @close="emit('close')">
    <header class="flex flex-wrap items-end gap-x-4 gap-y-2 border-b border-line px-5 py-3">
      <div class="mr-auto">
        <DialogTitle as="h2">What do you want from your visitors?</DialogTitle>
        <p class="text-ink-2">Every word and colour can be changed next.</p>
      </div>
      <label class="grid text-sm text-ink-2"
        >For<select v-model="purpose" class="input w-40!" aria-label="Purpose">
          <option value="">anything</option>
          <option v-for="[key, words] in purposes" :key="key" :value="key">{{ words }}</option>
        </select></label
      >
      <label class="grid text-sm text-ink-2"
        >That asks<select v-model="asks" class="input w-40!" aria-label="How much it asks">
          <option value="">as much as it likes</option>
          <option v-for="(words, key) in ASKS" :key="key" :value="key">{{ words }}</option>
        </select></label
      >
    </header>
    <form class="flex min-h-0 flex-1" @submit.prevent="run(go)">
      <div
        class="w-80 shrink-0 overflow-auto border-r border-line p-2"
        role="radiogroup"
        aria-label="Starter"
      >
        <label
          v-for="one in shown"
          :key="one.key"
          class="flex cursor-pointer gap-2 rounded-md px-3 py-2"
          :class="starter?.key === one.key ? 'bg-petrol-tint' : 'hover:bg-petrol-wash'"
        >
          <input
            v-model="chosen"
            type="radio"
            name="starter"
            class="mt-1"
            :value="one.key"
            :checked="starter?.key === one.key"
          />
          <span class="min-w-0"
            ><strong>{{ one.name }}</strong
            ><span class="block text-sm text-ink-2">{{ one.about }}</span></span
          >
        </label>
        <p v-if="starters && !shown.length" class="p-3 text-ink-2">
          Nothing asks that little for this. Ask for a little more.
        </p>
      </div>
      <section v-if="starter" class="flex min-w-0 flex-1 flex-col" aria-label="How it looks">
        <div class="flex min-h-0 flex-1 gap-3 bg-line-2 p-3" inert>
          <StageFrame
            :key="starter.key"
            class="flex-[2.4]"
            :document="starter.seen"
            :step="starter.seen.steps[0]?.id ?? ''"
            :width="1000"
            :height="720"
            :title="`Picture of ${starter.name}`"
          />
          <StageFrame
            :key="`${starter.key}-phone`"
            class="flex-1"
            :document="starter.seen"
            :step="starter.seen.steps[0]?.id ?? ''"
            :width="375"
            :height="720"
            :title="`${starter.name} on a phone`"
          />
        </div>
        <footer class="grid grid-cols-[1fr_auto] items-start gap-4 border-t border-line px-5 py-3">
          <div>
            <p class="mb-2 text-sm text-ink-2">
              <span class="chip">{{ PURPOSES[starter.purpose as keyof typeof PURPOSES] }}</span>
              <span class="chip">{{ STANCES[starter.stance as keyof typeof STANCES] }}</span>
              <span class="chip">{{ ASKS[starter.asks] }}</span>
              <span class="chip"
                >{{ starter.seen.steps.length }}
                {{ starter.seen.steps.length === 1 ? 'step' : 'steps' }}</span
              >
            </p>
            <TextField
              v-model="name"
              label="Your own name for it"
              :error="fields.name"
              hint="Its link is made from it."
            />
          </div>
          <div class="flex flex-col gap-2 pt-8">
            <button class="btn btn-main" :disabled="busy">Start with this</button>
            <label class="btn cursor-pointer"
              >From a file<input type="file" accept=".json" class="sr-only" @change="fromFile"
            /></label>
            <button type="button" class="btn" @click="emit('close')">Cancel</button>
          </div>
          <div
            v-if="places.length"
            class="col-span-2 rounded-md border border-rust bg-rust-tint px-3 py-2 text-rust"
            role="alert"
          >
            <strong>This file cannot be taken in. Nothing was changed.</strong>
            <p v-for="[place, words] in places" :key="place">{{ place.slice(5) }}: {{ words }}</p>
          </div>
          <ErrorBox v-else-if="!fields.name" class="col-span-2" :error="error" />
        </footer>
      </section>
    </form>
  </DialogBox>
</template>
