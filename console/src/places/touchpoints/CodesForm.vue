<script setup lang="ts">
import { choices } from '@/api/parts.json'
import { ref } from 'vue'
import { addCodes, dropCodes, type Draft } from '@/api/touchpoints'
import { useNotices } from '@/lib/notices'
import { useForm } from '@/parts/form'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { Change, TouchpointDocument } from '@/api/document'

const props = defineProps<{ document: TouchpointDocument; draft: Draft }>()
const emit = defineEmits<{ change: Change; draft: [draft: Draft] }>()
const KINDS = choices['code.kind']
const text = ref('')
const notices = useNotices()
const { error, fields, busy, run } = useForm()
const set = (patch: Partial<TouchpointDocument['after']['code']>) =>
  emit('change', `after.code.${Object.keys(patch)[0]}`, (d) => Object.assign(d.after.code, patch))

async function add() {
  const found = await addCodes(props.draft.id, text.value)
  text.value = ''
  notices.say(`${found.added} codes added${found.known ? `, ${found.known} were there already` : ''}.`)
  emit('draft', found.draft)
}
async function read(event: Event) {
  text.value = (await (event.target as HTMLInputElement).files?.[0]?.text()) ?? text.value
}
</script>

<template>
  <div class="grid gap-1.5">
    <p class="text-sm text-ink-2">They get a code</p>
    <SelectBox label="Code" :value="document.after.code.kind" :options="KINDS" @set="set({ kind: $event })" />
    <WordsBox
      v-if="document.after.code.kind === 'shared'"
      label="The code"
      :value="document.after.code.shared"
      @set="set({ shared: $event.trim() })"
    />
    <template v-if="document.after.code.kind === 'each'">
      <p
        :class="draft.codes_left * 10 <= draft.codes_all ? 'font-semibold text-brass' : 'text-ink-2'"
        role="status"
      >
        {{ draft.codes_left }} of {{ draft.codes_all }} codes are left.
      </p>
      <label class="text-sm text-ink-2" for="codes">More codes, one a line, or from a CSV file</label>
      <textarea id="codes" v-model="text" rows="3" class="input" :aria-invalid="!!fields.codes" />
      <p v-if="error" class="text-sm font-semibold text-rust" role="alert">
        {{ fields.codes ?? error.message }}
      </p>
      <span class="flex flex-wrap gap-2">
        <button type="button" class="btn" :disabled="busy || !text.trim()" @click="run(add)">
          Add these
        </button>
        <label class="btn cursor-pointer"
          >From a file<input type="file" accept=".csv,.txt" class="sr-only" @change="read"
        /></label>
        <button
          v-if="draft.codes_left"
          type="button"
          class="btn"
          @click="run(async () => emit('draft', await dropCodes(draft.id)))"
        >
          Throw the rest away
        </button>
      </span>
    </template>
    <template v-if="document.after.code.kind !== 'none'">
      <TickBox :value="document.after.code.show" @set="set({ show: $event })"
        >shown where the code stands</TickBox
      >
      <TickBox :value="document.after.code.mail" @set="set({ mail: $event })">in the mail</TickBox>
    </template>
  </div>
</template>
