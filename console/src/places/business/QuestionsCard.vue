<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { reactive, ref } from 'vue'
import {
  dropQuestion,
  keepQuestion,
  orderQuestions,
  useQuestions,
  type QuestionAnswer,
} from '@/api/questions'
import ErrorBox from '@/parts/ErrorBox.vue'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/parts/form'
import RichBox from '@/parts/fields/RichBox.vue'
import { useNotices } from '@/lib/notices'
import { vTakesFocus } from '@/lib/focus'

const { data: all, error: unread } = useQuestions()
const queries = useQueryClient()
const notices = useNotices()
const { error, fields, busy, run } = useForm()
const open = ref<number | 'new' | null>(null)
const form = reactive({ group: '', question: '', answer: '' })
const fresh = () => queries.invalidateQueries({ queryKey: ['questions'] })

function edit(row: QuestionAnswer | null) {
  Object.assign(
    form,
    row
      ? { group: row.group, question: row.question, answer: row.answer }
      : { group: '', question: '', answer: '' },
  )
  open.value = row ? row.id : 'new'
}
async function save() {
  await keepQuestion(open.value === 'new' ? null : open.value, { ...form })
  await fresh()
  open.value = null
}
async function drop(row: QuestionAnswer) {
  await dropQuestion(row.id)
  await fresh()
  const { group, question, answer } = row
  notices.say('The question is thrown away.', {
    undo: () => keepQuestion(null, { group, question, answer }),
  })
}
async function up(at: number) {
  const ids = (all.value ?? []).map((row) => row.id)
  const [id] = ids.splice(at, 1)
  if (id !== undefined) ids.splice(at - 1, 0, id)
  await orderQuestions(ids)
  await fresh()
}
</script>

<template>
  <article id="questions" class="sheet p-5" aria-labelledby="questions-title">
    <h2 id="questions-title">Questions & answers</h2>
    <p class="mb-3 text-ink-2">What people ask again and again. Touchpoints show them, all or one group.</p>
    <ErrorBox :error="unread ?? (Object.keys(fields).length ? null : error)" />
    <ol class="grid gap-1">
      <li
        v-for="(row, at) in all"
        :key="row.id"
        class="flex items-baseline gap-3 border-t border-line-2 py-1.5"
      >
        <span class="min-w-0 flex-1"
          ><strong>{{ row.question }}</strong> <span v-if="row.group" class="chip">{{ row.group }}</span>
          <span v-if="row.helped + row.not_helped" class="block text-sm text-ink-2"
            >helped {{ row.helped }} of {{ row.helped + row.not_helped }}</span
          ></span
        >
        <button
          v-if="at"
          type="button"
          class="btn-link"
          :aria-label="`Move “${row.question}” up`"
          @click="run(() => up(at))"
        >
          up
        </button>
        <button type="button" class="btn-link" :aria-label="`Change “${row.question}”`" @click="edit(row)">
          change
        </button>
        <button
          type="button"
          class="btn-link text-rust!"
          :aria-label="`Throw away “${row.question}”`"
          @click="run(() => drop(row))"
        >
          throw away
        </button>
      </li>
    </ol>
    <form v-if="open !== null" v-takes-focus class="mt-3 grid gap-2" @submit.prevent="run(save)">
      <TextField v-model="form.question" label="Question" :error="fields.question" />
      <div>
        <p class="mb-1 font-semibold">Answer</p>
        <RichBox
          :key="String(open)"
          label="Answer"
          pictures
          :html="form.answer"
          @html="form.answer = $event"
        />
        <p v-if="fields.answer" class="mt-1 text-sm font-semibold text-rust" role="alert">
          {{ fields.answer }}
        </p>
      </div>
      <TextField v-model="form.group" label="Group" hint="Trips, hire, lessons … or none." />
      <span class="flex gap-2"
        ><button class="btn btn-main" :disabled="busy">Keep it</button
        ><button type="button" class="btn" @click="open = null">Cancel</button></span
      >
    </form>
    <button v-else type="button" class="btn mt-3" @click="edit(null)">+ Question</button>
  </article>
</template>
