<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { computed, ref, toRef } from 'vue'
import type { FullLook } from '@/api/document'
import ColourBox from '@/parts/fields/ColourBox.vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import { COLOURS, PLACES, useLook, type Role, type Screen } from './look'
import LookBehind from './LookBehind.vue'
import LookClosing from './LookClosing.vue'
import LookRow from './LookRow.vue'
import LookSpacing from './LookSpacing.vue'
import LookType from './LookType.vue'
import type { Change, TouchpointDocument } from '@/api/document'

const props = defineProps<{
  document: TouchpointDocument
  worked: FullLook
  departures: string[]
  places: string[]
  house: boolean
  cssError?: string | undefined
}>()
const emit = defineEmits<{ change: Change }>()
const screen = ref<Screen>('all')
const change = (...what: Change) => emit('change', ...what)
const isButton = computed(() => props.document.stance === 'button')
const look = useLook(toRef(props, 'document'), toRef(props, 'worked'), screen, change)
const standing = computed(() => Object.fromEntries(props.places.map((one) => [one, PLACES[one] ?? one])))
const roles = Object.entries(COLOURS) as [Role, string][]
const CLEAR = [
  ['card_clear', 'Card shines through'],
  ['button_clear', 'Buttons shine through'],
] as const
const HEIGHTS = { ...choices['look.height'], set: 'set' }
const CONTENT = choices['look.content']
const height = computed(() => look.value('height'))
</script>

<template>
  <div class="grid gap-2">
    <div class="flex items-center gap-1" role="group" aria-label="Which screen these values are for">
      <button
        type="button"
        class="btn flex-1 justify-center"
        :class="{ '!border-petrol text-petrol': screen === 'all' }"
        :aria-pressed="screen === 'all'"
        @click="screen = 'all'"
      >
        Everywhere
      </button>
      <button
        type="button"
        class="btn flex-1 justify-center"
        :class="{ '!border-petrol text-petrol': screen === 'phone' }"
        :aria-pressed="screen === 'phone'"
        @click="screen = 'phone'"
      >
        On phones
      </button>
    </div>
    <TickBox v-if="house" :value="document.look.house" @set="change('house', (d) => (d.look.house = $event))">
      follows the house style<span v-if="departures.length" class="block text-sm text-ink-2"
        >{{ departures.length }} {{ departures.length === 1 ? 'value departs' : 'values depart' }} from it,
        marked ●</span
      >
    </TickBox>
    <LookRow
      name="Stands"
      :departs="look.departs('place')"
      :from="look.from.value"
      @back="look.back('place')"
    >
      <SelectBox
        label="Stands"
        :value="look.value('place')"
        :options="standing"
        @set="look.set('place', $event)"
      />
    </LookRow>
    <LookRow
      :name="isButton ? 'From the side' : 'From the edge'"
      :departs="look.departs('edge')"
      :from="look.from.value"
      @back="look.back('edge')"
    >
      <NumberBox
        :label="isButton ? 'Distance from the side' : 'Distance from the edge'"
        :value="look.value('edge')"
        :least="0"
        :most="200"
        @set="look.set('edge', $event)"
      />
      px
    </LookRow>
    <LookRow
      v-if="isButton"
      name="From top or foot"
      :departs="look.departs('edge_y')"
      :from="look.from.value"
      @back="look.back('edge_y')"
    >
      <NumberBox
        label="Distance from top or foot"
        :value="look.value('edge_y')"
        :least="0"
        :most="400"
        @set="look.set('edge_y', $event)"
      />
      px
    </LookRow>
    <LookRow name="Width" :departs="look.departs('width')" :from="look.from.value" @back="look.back('width')">
      <NumberBox
        label="Width"
        :value="look.value('width')"
        :least="200"
        :most="1600"
        :step="10"
        @set="look.set('width', $event)"
      />
      px
    </LookRow>
    <LookRow
      name="Height"
      :departs="look.departs('height')"
      :from="look.from.value"
      @back="look.back('height')"
    >
      <span class="flex items-center gap-1">
        <SelectBox
          label="Height"
          :value="typeof height === 'number' ? 'set' : height"
          :options="HEIGHTS"
          @set="look.set('height', $event === 'set' ? 400 : $event)"
        />
        <NumberBox
          v-if="typeof height === 'number'"
          label="Height in pixels"
          :value="height"
          :least="80"
          :most="2000"
          :step="10"
          @set="look.set('height', $event)"
        />
      </span>
    </LookRow>
    <LookRow
      name="Content"
      :departs="look.departs('content')"
      :from="look.from.value"
      @back="look.back('content')"
    >
      <SelectBox
        label="Content stands"
        :value="look.value('content')"
        :options="CONTENT"
        @set="look.set('content', $event)"
      />
    </LookRow>
    <LookRow
      v-if="document.stance === 'bar'"
      name="The page"
      :departs="look.departs('pushes')"
      :from="look.from.value"
      @back="look.back('pushes')"
    >
      <SelectBox
        label="What the page does"
        :value="look.value('pushes') ? 'aside' : 'under'"
        :options="{ aside: 'moves aside for the bar', under: 'stays; the bar lies over it' }"
        @set="look.set('pushes', $event === 'aside')"
      />
    </LookRow>
    <LookRow
      v-if="document.stance === 'bar' && look.value('place') === 'top'"
      name="While scrolling"
      :departs="look.departs('stays')"
      :from="look.from.value"
      @back="look.back('stays')"
    >
      <SelectBox
        label="While scrolling"
        :value="look.value('stays') ? 'stays' : 'goes'"
        :options="{ stays: 'the bar stays in view', goes: 'it goes with the page' }"
        @set="look.set('stays', $event === 'stays')"
      />
    </LookRow>
    <details>
      <summary class="font-semibold">Colours</summary>
      <div class="mt-2 grid gap-1.5">
        <LookRow
          v-for="[role, name] in roles"
          :key="role"
          :name="name"
          :departs="look.colourDeparts(role)"
          :from="look.from.value"
          @back="look.setColour(role, null)"
        >
          <ColourBox :label="name" :value="look.colour(role)" @set="look.setColour(role, $event)" />
        </LookRow>
        <LookRow
          v-for="[name, label] in CLEAR"
          :key="name"
          :name="label"
          :departs="look.departs(name)"
          :from="look.from.value"
          @back="look.back(name)"
        >
          <span class="flex items-center gap-2">
            <input
              type="range"
              min="0"
              max="90"
              step="5"
              class="min-w-0 flex-1"
              :aria-label="`${label}, in percent`"
              :value="look.value(name)"
              @input="look.set(name, Number(($event.target as HTMLInputElement).value))"
            />
            <span class="w-10 text-end text-sm tabular-nums">{{ look.value(name) }} %</span>
          </span>
        </LookRow>
      </div>
    </details>
    <details>
      <summary class="font-semibold">Type</summary>
      <LookType class="mt-2" :look="look" />
    </details>
    <details>
      <summary class="font-semibold">Spacing, edge, motion</summary>
      <LookSpacing class="mt-2" :look="look" />
    </details>
    <details>
      <summary class="font-semibold">Background and what lies behind</summary>
      <LookBehind class="mt-2" :look="look" />
    </details>
    <details>
      <summary class="font-semibold">How it is closed</summary>
      <LookClosing class="mt-2" :look="look" :leaving="document.leaving" @change="change" />
    </details>
    <details v-if="screen === 'all'">
      <summary class="font-semibold">Own CSS</summary>
      <WordsBox
        class="mt-2"
        label="Only meets this touchpoint"
        :rows="5"
        placeholder=".card { letter-spacing: .01em }"
        :value="document.look.css"
        :bad="cssError"
        @set="change('css', (d) => (d.look.css = $event))"
      />
    </details>
  </div>
</template>
