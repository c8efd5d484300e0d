<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { computed, inject, ref } from 'vue'
import { pictureOf, useLibrary, useUpload, type Asset } from '@/api/library'
import ColourBox from '@/parts/fields/ColourBox.vue'
import LibraryPicker from '@/parts/fields/LibraryPicker.vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import { HOUSE_LOGO } from '../fresh'
import { LOGO } from '../seen'
import type { PartOf } from '@/api/document'
import { firstFrame } from './poster'

const props = defineProps<{ part: PartOf<'picture'> | PartOf<'video'> }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
const choosing = ref<'asset' | 'poster' | null>(null)
const note = ref('')
const logo = inject(LOGO)
const isLogo = computed(() => props.part.asset === HOUSE_LOGO)
const shown = computed(() => (isLogo.value ? (logo?.value ?? null) : props.part.asset))
const { data: pictures } = useLibrary('picture')
const send = useUpload()
const PLACES = choices.place
const boxed = computed(
  () =>
    props.part.kind === 'picture' && pictures.value?.find((one) => one.public_id === props.part.asset)?.boxed,
)

async function picked(asset: Asset) {
  const which = choosing.value
  choosing.value = null
  if (which === 'poster') return emit('set', { poster: asset.public_id })
  const before = props.part.description
  emit('set', { asset: asset.public_id, description: asset.description })
  if (before && before !== asset.description)
    note.value = asset.description
      ? 'Its description came with it; look whether it fits.'
      : `The old description is gone (“${before}”): say what is on this one.`
  if (props.part.kind !== 'video' || props.part.poster) return
  try {
    const still = await firstFrame(`/m/${asset.public_id}/video`)
    emit('set', { poster: (await send(still, 'picture')).public_id })
  } catch {
    note.value = 'No picture could be taken from this video; choose one for it.'
  }
}
function focusAt(event: MouseEvent) {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const share = (at: number, from: number, length: number) =>
    Math.round(Math.min(100, Math.max(0, ((at - from) / length) * 100)))
  emit('set', {
    focus_x: share(event.clientX, box.left, box.width),
    focus_y: share(event.clientY, box.top, box.height),
  })
}
function nudge(event: KeyboardEvent) {
  if (props.part.kind !== 'picture') return
  const by = { ArrowLeft: [-5, 0], ArrowRight: [5, 0], ArrowUp: [0, -5], ArrowDown: [0, 5] }[event.key]
  if (!by) return
  event.preventDefault()
  const kept = (value: number) => Math.min(100, Math.max(0, value))
  emit('set', {
    focus_x: kept(props.part.focus_x + (by[0] ?? 0)),
    focus_y: kept(props.part.focus_y + (by[1] ?? 0)),
  })
}
</script>

<template>
  <div class="grid gap-2">
    <template v-if="part.kind === 'picture'">
      <p v-if="isLogo" class="text-sm text-ink-2">
        {{
          shown
            ? 'The logo of the house style; it changes with it.'
            : 'The house style has no logo yet, so nothing stands here.'
        }}
        <RouterLink to="/business" class="btn-link">House style</RouterLink>
      </p>
      <button
        v-if="shown"
        type="button"
        class="relative block overflow-hidden rounded-md border border-line"
        :aria-label="`Focus at ${part.focus_x} %, ${part.focus_y} %; arrows move it`"
        @click="focusAt"
        @keydown="nudge"
      >
        <img :src="pictureOf(shown)" alt="" class="block w-full" />
        <span
          v-if="!part.whole"
          class="pointer-events-none absolute size-5 -translate-1/2 rounded-full border-2 border-sheet bg-rust/70"
          :style="{ left: `${part.focus_x}%`, top: `${part.focus_y}%` }"
        />
      </button>
      <p v-if="shown && !part.whole" class="text-xs text-ink-2">Click on what must not be cut off.</p>
      <p v-if="boxed" class="text-sm font-semibold text-brass">
        ▲ It is boxed in a background of its own. One with a clear background looks better on your colour.
      </p>
    </template>
    <img
      v-else-if="part.poster"
      :src="pictureOf(part.poster)"
      alt=""
      class="w-full rounded-md border border-line"
    />
    <span class="flex gap-2">
      <button type="button" class="btn" @click="choosing = 'asset'">
        {{ part.asset ? 'Another one' : `Choose a ${part.kind}` }}
      </button>
      <button
        v-if="part.kind === 'picture' && !isLogo"
        type="button"
        class="btn"
        @click="emit('set', { asset: HOUSE_LOGO, whole: true })"
      >
        The logo
      </button>
      <button
        v-if="part.kind === 'video' && part.asset"
        type="button"
        class="btn"
        @click="choosing = 'poster'"
      >
        Picture before it plays
      </button>
    </span>
    <p v-if="note" class="text-sm text-brass" role="status">{{ note }}</p>
    <WordsBox
      label="What is on it, for those who do not see it"
      :value="part.description"
      @set="emit('set', { description: $event })"
    />
    <template v-if="part.kind === 'picture'">
      <SelectBox
        label="Where it stands"
        :value="part.place"
        :options="PLACES"
        @set="emit('set', { place: $event })"
      />
      <label class="grid grid-cols-[5rem_1fr] items-center gap-2 text-sm"
        >Brightness<input
          type="range"
          min="-80"
          max="80"
          :value="part.bright"
          @input="emit('set', { bright: Number(($event.target as HTMLInputElement).value) })"
      /></label>
      <label class="grid grid-cols-[5rem_1fr] items-center gap-2 text-sm"
        >Shaded<input
          type="range"
          min="0"
          max="95"
          :value="part.wash"
          @input="emit('set', { wash: Number(($event.target as HTMLInputElement).value) })"
      /></label>
      <span v-if="part.wash" class="grid grid-cols-[5rem_1fr] items-center gap-2 text-sm">
        with
        <ColourBox
          label="Shaded with"
          :value="part.wash_colour"
          @set="emit('set', { wash_colour: $event })"
        />
      </span>
      <span v-if="part.place !== 'behind'" class="flex items-center gap-2">
        height
        <NumberBox
          label="Height of the picture"
          :value="part.height"
          :least="24"
          :most="1200"
          :step="10"
          empty="auto"
          @set="emit('set', { height: $event })"
        />
        px
      </span>
      <TickBox
        v-if="part.height || part.place !== 'inline'"
        :value="part.whole"
        @set="emit('set', { whole: $event })"
        >all of it is shown, nothing cut off</TickBox
      >
      <TickBox :value="part.follows" @set="emit('set', { follows: $event })"
        >a click on it does what the first button does</TickBox
      >
    </template>
    <LibraryPicker
      v-if="choosing"
      :kind="choosing === 'poster' ? 'picture' : part.kind"
      @close="choosing = null"
      @pick="picked"
    />
  </div>
</template>
