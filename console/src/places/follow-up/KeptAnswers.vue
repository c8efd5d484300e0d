<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { computed, defineAsyncComponent, nextTick, ref, toRef } from 'vue'
import { useKeptAnswers, type KeptAnswer } from '@/api/follow-ups'
import { useForm } from '@/parts/form'
import { useNotices } from '@/lib/notices'
import { REPLY_SLOTS } from '@/places/hours/words'
import { runsToHtml, type Run } from '@/parts/fields/runs'
import { vTakesFocus } from '@/lib/focus'

/**
 * Answers kept for using again: found by a word, put in with their slots filled, kept from what is written.
 */
const RichBox = defineAsyncComponent(() => import('@/parts/fields/RichBox.vue'))
const props = defineProps<{ id: number; written: string }>()
const emit = defineEmits<{ use: [answer: KeptAnswer] }>()
const { answers, keep, forget } = useKeptAnswers(toRef(props, 'id'))
const notices = useNotices()
const { error, fields, run, busy } = useForm()
const open = ref(false)
const panel = ref<HTMLElement>()
const box = ref<HTMLInputElement>()
const asked = ref('')
const at = ref(0)
onClickOutside(panel, () => (open.value = false))

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
const found = computed(() => {
  const words = plain(asked.value).split(/\s+/).filter(Boolean)
  return (answers.value ?? []).filter((one) =>
    words.every((word) => plain(`${one.name} ${one.group} ${one.words}`).includes(word)),
  )
})
async function show() {
  asked.value = ''
  at.value = 0
  editing.value = null
  open.value = true
  await nextTick()
  box.value?.focus()
}
function close() {
  open.value = false
  panel.value?.querySelector('button')?.focus()
}
defineExpose({ show })
function use(one: KeptAnswer | undefined) {
  if (!one) return
  open.value = false
  emit('use', one)
}

const SLOTS = { first_name: 'their first name', ...REPLY_SLOTS }
const editing = ref<{ id: number | null; name: string; group: string; text: Run[]; for_all: boolean } | null>(
  null,
)
const start = (one?: KeptAnswer) =>
  (editing.value = one
    ? { id: one.id, name: one.name, group: one.group, text: one.text as Run[], for_all: one.for_all }
    : { id: null, name: '', group: '', text: props.written ? [props.written] : [], for_all: true })
const save = () =>
  run(async () => {
    if (!editing.value) return
    const { id, ...body } = editing.value
    await keep(id, body as Parameters<typeof keep>[1])
    notices.say(`“${body.name.trim()}” is kept.`)
    editing.value = null
  })
const drop = (id: number) =>
  run(async () => {
    await forget(id)
    editing.value = null
  })
</script>

<template>
  <div ref="panel">
    <button type="button" class="btn" :aria-expanded="open" @click="open ? (open = false) : show()">
      Kept answers <span aria-hidden="true">▾</span>
    </button>
    <div
      v-if="open"
      class="pop absolute inset-x-0 bottom-full mx-auto mb-1 grid max-h-96 max-w-lg gap-2 overflow-auto"
      role="region"
      aria-label="Kept answers"
    >
      <form
        v-if="editing"
        v-takes-focus
        class="grid gap-2"
        novalidate
        @submit.prevent="save"
        @keydown.esc.stop.prevent="editing = null"
      >
        <label class="grid text-sm text-ink-2"
          >Its name<input v-model="editing.name" class="input" maxlength="80" :aria-invalid="!!fields.name"
        /></label>
        <label class="grid text-sm text-ink-2"
          >In the group<input v-model="editing.group" class="input" maxlength="40" placeholder="none"
        /></label>
        <RichBox
          label="The words of the answer"
          plain
          :html="runsToHtml(editing.text)"
          :slots="SLOTS"
          @runs="editing.text = $event as Run[]"
        />
        <label class="flex items-center gap-1.5"
          ><input v-model="editing.for_all" type="checkbox" /> for all of us</label
        >
        <p v-if="error" class="font-semibold text-rust" role="alert">
          {{ Object.values(fields)[0] ?? error.message }}
        </p>
        <span class="flex gap-2">
          <button class="btn btn-main" :disabled="busy">Keep it</button>
          <button type="button" class="btn" @click="editing = null">Cancel</button>
          <button
            v-if="editing.id !== null"
            type="button"
            class="btn ml-auto text-rust"
            @click="drop(editing.id)"
          >
            Forget it
          </button>
        </span>
      </form>
      <template v-else>
        <input
          ref="box"
          v-model="asked"
          class="input"
          type="search"
          aria-label="Find a kept answer"
          placeholder="Any word of it"
          @input="at = 0"
          @keydown.down.prevent="at = Math.min(found.length - 1, at + 1)"
          @keydown.up.prevent="at = Math.max(0, at - 1)"
          @keydown.enter.prevent="use(found[at])"
          @keydown.esc.stop.prevent="close"
        />
        <p v-if="!found.length" class="text-ink-2">
          {{ answers?.length ? 'None has this word.' : 'None is kept yet.' }}
        </p>
        <ul class="grid gap-1">
          <li
            v-for="(one, number) in found"
            :key="one.id"
            class="flex items-start gap-1 rounded"
            :class="{ 'bg-petrol-wash': number === at }"
          >
            <button type="button" class="min-w-0 flex-1 px-2 py-1 text-left" @click="use(one)">
              <span class="flex justify-between gap-2"
                ><strong class="truncate">{{ one.name }}</strong
                ><span class="shrink-0 text-xs text-ink-2">{{
                  [one.group, one.for_all ? '' : 'yours', one.uses ? `used ${one.uses}` : '']
                    .filter(Boolean)
                    .join(' · ')
                }}</span></span
              >
              <span class="line-clamp-2 text-sm text-ink-2" dir="auto">{{ one.words }}</span>
            </button>
            <button
              type="button"
              class="btn-link shrink-0 px-1 py-1 text-sm"
              :aria-label="`Change ${one.name}`"
              @click="start(one)"
            >
              change
            </button>
          </li>
        </ul>
        <button type="button" class="btn justify-self-start" @click="start()">
          {{ written.trim() ? 'Keep what is written …' : '+ Kept answer' }}
        </button>
      </template>
    </div>
  </div>
</template>
