<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { computed, ref } from 'vue'
import type { Asset } from '@/api/library'
import ColourBox from '@/parts/fields/ColourBox.vue'
import LibraryPicker from '@/parts/fields/LibraryPicker.vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import type { LookHandle } from './look'
import LookRow from './LookRow.vue'

const props = defineProps<{ look: LookHandle }>()
const choosing = ref<'background' | 'backdrop' | 'backdrop-video' | null>(null)
const KINDS = choices['look.background.kind']
const background = computed(() => props.look.value('background'))
const backdrop = computed(() => props.look.value('backdrop'))
const paint = (patch: object) => props.look.set('background', { ...background.value, ...patch } as never)
function picked(asset: Asset) {
  if (choosing.value === 'background') paint({ asset: asset.public_id })
  else props.look.set('backdrop', { ...backdrop.value, asset: asset.public_id })
  choosing.value = null
}
const slide = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <div class="grid gap-1.5">
    <LookRow
      name="Background"
      :departs="look.departs('background')"
      :from="look.from.value"
      @back="look.back('background')"
    >
      <SelectBox
        label="Background"
        :value="background.kind"
        :options="KINDS"
        @set="paint({ kind: $event })"
      />
    </LookRow>
    <template v-if="background.kind === 'gradient'">
      <span class="flex flex-wrap items-center gap-1"
        >from <ColourBox label="Gradient begins" :value="background.start" @set="paint({ start: $event })"
      /></span>
      <span class="flex flex-wrap items-center gap-1"
        >to <ColourBox label="Gradient ends" :value="background.end" @set="paint({ end: $event })"
      /></span>
      <span class="flex items-center gap-1"
        ><NumberBox
          label="Angle"
          :value="background.angle"
          :least="0"
          :most="360"
          :step="15"
          @set="paint({ angle: $event ?? 160 })"
        />
        degrees</span
      >
    </template>
    <template v-if="background.kind === 'picture' || background.kind === 'video'">
      <button type="button" class="btn justify-self-start" @click="choosing = 'background'">
        {{ background.asset ? 'Another one' : `Choose a ${background.kind}` }}
      </button>
      <label class="grid grid-cols-[5rem_1fr] items-center text-sm"
        >Brightness<input
          type="range"
          min="-80"
          max="80"
          :value="background.bright"
          @input="paint({ bright: slide($event) })"
      /></label>
      <label class="grid grid-cols-[5rem_1fr] items-center text-sm"
        >Shaded<input
          type="range"
          min="0"
          max="95"
          :value="background.wash"
          @input="paint({ wash: slide($event) })"
      /></label>
      <ColourBox
        v-if="background.wash"
        label="Background shaded with"
        :value="background.wash_colour"
        @set="paint({ wash_colour: $event })"
      />
    </template>
    <LookRow
      name="Page behind"
      :departs="look.departs('backdrop')"
      :from="look.from.value"
      @back="look.back('backdrop')"
    >
      <input
        type="range"
        min="0"
        max="95"
        class="w-full"
        aria-label="How strongly the page behind is covered"
        :value="backdrop.strength"
        @input="look.set('backdrop', { ...backdrop, strength: slide($event) })"
      />
    </LookRow>
    <span class="flex flex-wrap gap-1">
      <button type="button" class="btn" @click="choosing = 'backdrop'">Picture over the page</button>
      <button type="button" class="btn" @click="choosing = 'backdrop-video'">Video over the page</button>
      <button
        v-if="backdrop.asset"
        type="button"
        class="btn"
        @click="look.set('backdrop', { ...backdrop, asset: null })"
      >
        None
      </button>
    </span>
    <LibraryPicker
      v-if="choosing"
      :kind="
        choosing === 'backdrop-video' || (choosing === 'background' && background.kind === 'video')
          ? 'video'
          : 'picture'
      "
      @close="choosing = null"
      @pick="picked"
    />
  </div>
</template>
