<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { inject, ref } from 'vue'
import DoesForm from './forms/DoesForm.vue'
import LibraryPicker from '@/parts/fields/LibraryPicker.vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { Change, Does, TouchpointDocument } from '@/api/document'
import { FIRST_WORDS } from './fresh'

/** The button itself, where the stance is one: what it says and what it does, then its sign. */
defineProps<{ document: TouchpointDocument }>()
const emit = defineEmits<{ change: Change }>()
const words = inject(FIRST_WORDS, undefined)
const choosing = ref<'face' | 'greeting' | null>(null)
const PLAIN: Does = {
  action: 'phone',
  next: null,
  address: '',
  asset: null,
  touchpoint: '',
  spot: '',
  channel: '',
  tab: 'same',
  goal: true,
  href: '',
}
function picked(asset: string) {
  const where = choosing.value
  choosing.value = null
  if (where === 'face') emit('change', 'face.picture', (d) => (d.face.picture = asset))
  else emit('change', 'face.greeting', (d) => d.face.greeting && (d.face.greeting.picture = asset))
}
</script>

<template>
  <div class="grid gap-2">
    <WordsBox
      data-place="face"
      label="Words on the button"
      :value="document.face.label"
      @set="emit('change', 'face.label', (d) => (d.face.label = $event))"
    />
    <SelectBox
      v-if="!document.face.does"
      label="A click on it"
      :value="document.face.opens"
      :options="choices.opens"
      @set="emit('change', 'face.opens', (d) => (d.face.opens = $event))"
    />
    <TickBox
      :value="document.face.does !== null"
      @set="emit('change', 'face.does', (d) => (d.face.does = $event ? PLAIN : null))"
      >does something at once, instead of opening a card</TickBox
    >
    <DoesForm
      v-if="document.face.does"
      :does="document.face.does"
      :document="document"
      :without="['send', 'step', 'back', 'close']"
      @set="emit('change', 'face.does', (d) => (d.face.does = $event))"
    />
    <SelectBox
      label="Sign on the button"
      :value="document.face.sign"
      :options="choices.sign"
      @set="emit('change', 'face.sign', (d) => (d.face.sign = $event))"
    />
    <span class="flex flex-wrap gap-2">
      <button type="button" class="btn" @click="choosing = 'face'">
        {{ document.face.picture ? 'Another picture' : 'A picture instead' }}
      </button>
      <button
        v-if="document.face.picture"
        type="button"
        class="btn"
        @click="emit('change', 'face.picture', (d) => (d.face.picture = null))"
      >
        The sign again
      </button>
    </span>
    <TickBox
      v-if="document.face.picture"
      :value="document.face.fills"
      @set="emit('change', 'face.fills', (d) => (d.face.fills = $event))"
      >the picture fills the button</TickBox
    >
    <SelectBox
      label="Shape"
      :value="document.face.shape"
      :options="choices.shape"
      @set="emit('change', 'face.shape', (d) => (d.face.shape = $event))"
    />
    <label class="flex items-center gap-2 text-sm text-ink-2"
      >Height
      <NumberBox
        label="Height of the button"
        :value="document.face.size"
        :least="44"
        :most="160"
        :step="4"
        @set="emit('change', 'face.size', (d) => (d.face.size = $event ?? 44))"
      />
      px, at most a quarter of the screen</label
    >
    <TickBox :value="document.face.strip" @set="emit('change', 'face.strip', (d) => (d.face.strip = $event))"
      >on phones: up to four channels along the foot instead</TickBox
    >
    <TickBox
      :value="document.face.greeting !== null"
      @set="
        emit(
          'change',
          'face.greeting',
          (d) => (d.face.greeting = $event ? { after: 5, text: words?.greeting ?? '', picture: null } : null),
        )
      "
      >a greeting beside it, once a visit</TickBox
    >
    <template v-if="document.face.greeting">
      <WordsBox
        label="The greeting"
        :value="document.face.greeting.text"
        @set="emit('change', 'face.greeting', (d) => d.face.greeting && (d.face.greeting.text = $event))"
      />
      <span class="flex items-center gap-2"
        >after
        <NumberBox
          label="Seconds until the greeting"
          :value="document.face.greeting.after"
          :least="0"
          :most="600"
          @set="
            emit('change', 'face.greeting', (d) => d.face.greeting && (d.face.greeting.after = $event ?? 5))
          "
        />
        s
        <button type="button" class="btn" @click="choosing = 'greeting'">
          {{ document.face.greeting.picture ? 'Another face' : 'With a face' }}
        </button></span
      >
    </template>
    <TickBox
      :value="document.face.nudge !== null"
      @set="emit('change', 'face.nudge', (d) => (d.face.nudge = $event ? 30 : null))"
      >it moves a little while nobody has opened it, twice a visit at most</TickBox
    >
    <label v-if="document.face.nudge !== null" class="flex items-center gap-2 text-sm text-ink-2"
      >after
      <NumberBox
        label="Seconds until it moves"
        :value="document.face.nudge"
        :least="5"
        :most="600"
        @set="emit('change', 'face.nudge', (d) => (d.face.nudge = $event ?? 30))"
      />
      s on a page; still for those who ask for less motion</label
    >
    <LibraryPicker v-if="choosing" kind="picture" @close="choosing = null" @pick="picked($event.public_id)" />
  </div>
</template>
