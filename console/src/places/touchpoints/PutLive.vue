<script setup lang="ts">
import { computed } from 'vue'
import type { Draft } from '@/api/touchpoints'
import DialogBox from '@/parts/DialogBox.vue'

/** The one switch: turning on, or putting changes live, with the list of what visitors will get. */
const props = defineProps<{ draft: Draft }>()
const emit = defineEmits<{ close: []; go: [way: 'on' | 'live']; fix: [place: string] }>()
const first = computed(() => props.draft.live_number === null)
const live = computed(() => props.draft.state === 'live')
const stops = computed(() => props.draft.findings.filter((one) => one.level === 'stops'))
/** That it is not on, or was changed, is what this is for. */
const looks = computed(() =>
  props.draft.findings.filter((one) => one.level === 'look' && one.place !== 'switch'),
)
const title = computed(() =>
  first.value ? 'Turn it on' : live.value ? 'Put the changes live' : 'Turn it on again',
)
</script>

<template>
  <DialogBox :title="title" class="w-[34rem]" @close="emit('close')">
    <template v-if="stops.length">
      <p class="mb-2">This has to be put right first:</p>
      <ul class="mb-3 list-disc pl-5 text-rust">
        <li v-for="one in stops" :key="one.message">
          <button type="button" class="text-left underline" @click="emit('fix', one.place)">
            {{ one.message }}
          </button>
        </li>
      </ul>
    </template>
    <template v-else-if="first">
      <p>Visitors of {{ draft.sites.map((one) => one.name).join(' and ') }} get it within a second.</p>
    </template>
    <template v-else-if="draft.changes.length">
      <p class="mb-2">
        {{
          live
            ? 'Visitors will get this within a second:'
            : 'It was changed since it was last on. Visitors get, within a second:'
        }}
      </p>
      <ul class="mb-3 max-h-64 list-disc overflow-auto pl-5">
        <li v-for="one in draft.changes" :key="one.place + one.words">{{ one.words }}</li>
      </ul>
    </template>
    <p v-else>It comes back as it was.</p>
    <p v-if="looks.length" class="mt-2 text-sm text-brass">
      ▲ To look at: {{ looks.map((one) => one.message).join(' ') }}
    </p>
    <div class="mt-4 flex flex-wrap gap-2">
      <template v-if="!stops.length">
        <button v-if="first" type="button" class="btn btn-main" @click="emit('go', 'on')">Turn on</button>
        <template v-else>
          <button v-if="draft.changes.length" type="button" class="btn btn-main" @click="emit('go', 'live')">
            {{ live ? 'Put live' : 'Turn on with the changes' }}
          </button>
          <button
            v-if="!live"
            type="button"
            class="btn"
            :class="{ 'btn-main': !draft.changes.length }"
            @click="emit('go', 'on')"
          >
            {{ draft.changes.length ? 'Turn on as it was' : 'Turn on' }}
          </button>
        </template>
      </template>
      <button type="button" class="btn" @click="emit('close')">Not yet</button>
    </div>
  </DialogBox>
</template>
