<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import { ref } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import {
  describeAsset,
  forgetAsset,
  pictureOf,
  useLibrary,
  useUpload,
  type Asset,
  type AssetKind,
} from '@/api/library'
import { useForm } from '@/parts/form'
import ErrorBox from '@/parts/ErrorBox.vue'
import DialogBox from '@/parts/DialogBox.vue'

const props = defineProps<{ kind: AssetKind }>()
const emit = defineEmits<{ close: []; pick: [asset: Asset] }>()
const queries = useQueryClient()
const { data: assets, error: unread } = useLibrary(() => props.kind)
const send = useUpload()
const { error, busy, run } = useForm()
const over = ref(false)
const NAMES = { picture: 'picture', video: 'video', file: 'file' }
const TAKES = {
  picture: 'image/jpeg,image/png,image/webp,image/avif',
  video: 'video/mp4,video/webm',
  file: '',
}
const HINTS = {
  picture: 'JPEG, PNG, WebP, AVIF or GIF (its first picture), at most 10 MB.',
  video: 'MP4 or WebM, at most 60 MB.',
  file: 'PDF, ZIP, picture or plain text, at most 60 MB.',
}

function take(files: FileList | null | undefined) {
  const file = files?.[0]
  if (file) void run(async () => emit('pick', await send(file, props.kind)))
}
function drop(asset: Asset) {
  void run(async () => {
    if (asset.id !== null) await forgetAsset(asset.id)
    await queries.invalidateQueries({ queryKey: ['library'] })
  })
}
function rename(asset: Asset, description: string) {
  void run(async () => {
    if (asset.id !== null) await describeAsset(asset.id, asset.name, description)
    await queries.invalidateQueries({ queryKey: ['library'] })
  })
}
</script>

<template>
  <DialogBox :title="`Choose a ${NAMES[kind]}`" class="w-3xl" @close="emit('close')">
    <label
      class="mb-3 flex cursor-pointer flex-col items-center gap-1 rounded-lg border-2 border-dashed p-5 text-center"
      :class="over ? 'border-petrol bg-petrol-wash' : 'border-line'"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="((over = false), take($event.dataTransfer?.files))"
    >
      <strong>{{ busy ? 'Taking it in …' : `Put a ${NAMES[kind]} here, or choose one` }}</strong>
      <span class="text-sm text-ink-2">{{ HINTS[kind] }}</span>
      <input
        type="file"
        class="sr-only"
        :accept="TAKES[kind]"
        @change="take(($event.target as HTMLInputElement).files)"
      />
    </label>
    <ErrorBox :error="error ?? unread" class="mb-3" />
    <ul class="grid grid-cols-4 gap-3" :aria-label="`Your ${NAMES[kind]}s`">
      <li v-for="asset in assets" :key="asset.public_id" class="min-w-0">
        <button
          type="button"
          class="block w-full overflow-hidden rounded-md border border-line bg-fog text-left hover:border-petrol"
          @click="emit('pick', asset)"
        >
          <img
            v-if="kind === 'picture'"
            :src="pictureOf(asset.public_id)"
            :alt="asset.description"
            class="h-24 w-full object-cover"
            loading="lazy"
          />
          <span class="block truncate px-2 py-1 text-sm font-semibold">{{ asset.name }}</span>
        </button>
        <p class="mt-0.5 flex items-start justify-between gap-1 text-xs text-ink-2">
          <span class="truncate">{{
            asset.used_by.length
              ? `in ${asset.used_by.join(', ')}`
              : asset.id === null
                ? 'comes with Intavo'
                : 'not used'
          }}</span>
          <button
            v-if="asset.id !== null && !asset.used_by.length"
            type="button"
            class="btn-link shrink-0"
            :aria-label="`Throw away ${asset.name}`"
            @click="drop(asset)"
          >
            throw away
          </button>
        </p>
        <input
          v-if="asset.id !== null && kind === 'picture'"
          v-typed="asset.description"
          class="input px-1.5! py-0.5! text-xs"
          :aria-label="`What is on ${asset.name}`"
          placeholder="what is on it"
          @change="rename(asset, ($event.target as HTMLInputElement).value)"
        />
      </li>
    </ul>
    <p v-if="assets && !assets.length" class="text-ink-2">
      There is nothing here yet. What you add stays for next time.
    </p>
    <button type="button" class="btn mt-4" @click="emit('close')">Cancel</button>
  </DialogBox>
</template>
