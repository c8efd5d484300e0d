<script setup lang="ts">
import { computed, ref } from 'vue'
import { makeChannel, readExample, readPasted, type ChannelDocument } from '@/api/channels'
import type { Schemas } from '@/api/client'
import { useForm } from '@/parts/form'
import { freshChannel, KINDS } from './channels'
import { vTakesFocus } from '@/lib/focus'

/** A new channel from whatever the owner has: a link, a number, a handle, an address. */
defineProps<{ first: boolean }>()
const emit = defineEmits<{ made: [id: number]; close: [] }>()
const { error, fields, busy, run, clear } = useForm()
const pasted = ref('')
const found = ref<Schemas['ReadChannelOut'] | null>(null)
const kind = ref<ChannelDocument['kind']>('phone')
const example = ref('')
const template = ref<Schemas['LinkTemplateOut'] | null>(null)
const kinds = computed(() => (found.value ? [found.value.kind, ...found.value.others] : []))
const label = computed(() => found.value?.labels[kind.value] ?? '')
const map = ref('')
const needsMap = computed(() => kind.value === 'map' && found.value?.kind === 'map' && !found.value.on_map)
const needsExample = computed(
  () => kind.value === 'message-link' && !template.value && !found.value?.template,
)

const look = () =>
  run(async () => {
    template.value = null
    found.value = await readPasted(pasted.value)
    kind.value = found.value.kind
  })
const learn = () => run(async () => void (template.value = await readExample(example.value)))
const make = () =>
  run(async () => {
    if (kind.value === 'map') {
      // A link that was pasted is the map's own; a street needs a map that shows it, or its coordinates.
      const shown = needsMap.value ? await readPasted(map.value) : found.value
      const place = shown?.on_map ? shown.handle : needsMap.value ? (found.value?.handle ?? '') : ''
      const made = await makeChannel(
        freshChannel('map', label.value, place, shown?.kind === 'page' ? shown.handle : null),
      )
      emit('made', made.id)
      return
    }
    const handle =
      template.value?.handle && !pasted.value.startsWith('@')
        ? template.value.handle
        : (found.value?.handle ?? '')
    const made = await makeChannel(
      freshChannel(
        kind.value,
        label.value,
        handle,
        template.value?.template ?? found.value?.template ?? null,
      ),
    )
    emit('made', made.id)
  })
</script>

<template>
  <section class="sheet grid gap-3 p-5" aria-labelledby="new-channel">
    <h2 id="new-channel">{{ first ? 'The first way to reach you' : 'A new channel' }}</h2>
    <form class="flex items-end gap-2" novalidate @submit.prevent="look">
      <label class="grid grow text-sm text-ink-2"
        >Paste or type what you have: a number, a mail address, a link, a handle, a place<input
          v-model="pasted"
          class="input"
          placeholder="a number · you@your-business.example · https://… · @handle"
          maxlength="500"
          :aria-invalid="!!fields.text"
          @input="((found = null), clear())"
      /></label>
      <button class="btn" :class="{ 'btn-main': !found }" :disabled="busy">Read it</button>
    </form>
    <template v-if="found">
      <p role="status"><span class="text-moss">✓</span> Taken for {{ found.words }}.</p>
      <label v-if="kinds.length > 1" class="grid max-w-64 text-sm text-ink-2"
        >It is a<select v-model="kind" class="input">
          <option v-for="one in kinds" :key="one" :value="one">{{ KINDS[one] ?? one }}</option>
        </select></label
      >
      <form v-if="needsExample" v-takes-focus class="flex items-end gap-2" novalidate @submit.prevent="learn">
        <label class="grid grow text-sm text-ink-2"
          >One link of that service with your own handle in it, and the words “hello there” if it takes
          any<input
            v-model="example"
            class="input"
            placeholder="https://…/your-handle?text=hello%20there"
            maxlength="500"
            :aria-invalid="!!fields.example"
        /></label>
        <button class="btn btn-main" :disabled="busy">Understand it</button>
      </form>
      <label v-if="needsMap" class="grid text-sm text-ink-2"
        >A map that shows it: find the place on your map and paste the address of that page, or its
        coordinates<input
          v-model="map"
          class="input"
          placeholder="https://… · 50.1234, -5.1234"
          maxlength="500"
          :aria-invalid="!!fields.text"
          @input="clear()"
      /></label>
      <p v-if="template" class="text-sm text-moss">
        ✓ Understood: <code class="break-all">{{ template.template }}</code>{{
          template.takes_text ? '; it takes first words' : '; it takes no words'
        }}
      </p>
    </template>
    <p v-if="error" class="font-semibold text-rust" role="alert">
      {{ Object.values(fields)[0] ?? error.message }}
    </p>
    <span class="flex gap-2">
      <button v-if="found && !needsExample" type="button" class="btn btn-main" :disabled="busy" @click="make">
        Make the channel
      </button>
      <button v-if="!first" type="button" class="btn" @click="emit('close')">Cancel</button>
    </span>
  </section>
</template>
