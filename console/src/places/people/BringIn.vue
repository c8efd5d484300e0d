<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import {
  dropImport,
  setUp,
  takeIn,
  undoImport,
  upload,
  useFresh,
  useImport,
  useImports,
  useTrial,
  type Brought,
} from '@/api/imports'
import { useAgain, useCountedTags } from '@/api/people'
import { useClock } from '@/lib/clock'
import { saidCount, saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useForm } from '@/parts/form'
import WhenBox from '@/parts/WhenBox.vue'
import type { ImportSettings } from './bringing'
import ImportColumns from './ImportColumns.vue'
import ImportDone from './ImportDone.vue'
import ImportTrial from './ImportTrial.vue'

/** A file of people: chosen, looked at, tried, taken in, and undone. */
const route = useRoute()
const router = useRouter()
const { zone, now } = useClock()
const fresh = useFresh()
const form = useForm()
const again = useAgain()
const id = computed(() => Number(route.params.id) || 0)
const { data: row, error } = useImport(id)
/** An export says of each what they agreed to. */
const saysItself = computed(() => row.value?.form === 'json' || row.value?.columns.includes('data'))
const { data: before } = useImports()
const { data: tags } = useCountedTags()
const STATES: Record<string, string> = {
  read: 'not taken yet',
  taking: 'on its way in',
  stopped: 'not all of it is in',
  done: 'taken in',
  undoing: 'being undone',
  undone: 'undone',
}

const settings = ref<ImportSettings>({
  columns: [],
  header: true,
  delimiter: ',',
  encoding: 'utf-8',
  tags: '',
  source: '',
  date: '',
})
const kept = ref('')
watch(
  () => row.value?.id,
  () => {
    if (row.value) show(row.value)
  },
  { immediate: true },
)
/** Once it is in, or undone, everything that shows people looks again. */
watch(
  () => row.value?.state,
  (state) => ['done', 'stopped', 'undone'].includes(state ?? '') && void again(),
)
function show(one: Brought) {
  settings.value = {
    columns: [...one.columns],
    header: one.header,
    delimiter: one.delimiter,
    encoding: one.encoding,
    tags: one.tags.join(', '),
    source: one.consent_source,
    date: one.consent_date ?? '',
  }
  kept.value = one.state === 'read' ? JSON.stringify(one) : ''
}
const { data: trial, error: untried, isFetching: trying } = useTrial(id, kept)

async function choose(event: Event) {
  const box = event.target as HTMLInputElement
  const file = box.files?.[0]
  if (!file) return
  await form.run(async () => {
    const found = await upload(file)
    await fresh(found)
    await router.push(`/people/bring-in/${found.id}`)
  })
  box.value = ''
}
const half = computed(() => !!settings.value.source.trim() !== !!settings.value.date)
/** Every change is kept and tried at once; where they agreed is kept with when. */
async function keep() {
  if (!row.value || half.value) return
  const { columns, header, delimiter, encoding, source, date } = settings.value
  const named = settings.value.tags
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
  const number = row.value.id
  await form.run(async () => {
    const found = await setUp(number, {
      columns,
      header,
      delimiter,
      encoding,
      tags: named,
      consent_source: source,
      consent_date: date || null,
    })
    kept.value = JSON.stringify(found)
    await fresh(found)
  })
}
async function go() {
  await form.run(async () => {
    await takeIn(id.value)
    kept.value = ''
    await fresh()
  })
}
async function back() {
  await form.run(async () => {
    await undoImport(id.value)
    await fresh()
  })
}
async function forget() {
  await form.run(async () => {
    await dropImport(id.value)
    await router.push('/people/bring-in')
    await fresh()
  })
}
const people = saidCount
</script>

<template>
  <div class="mx-auto w-full max-w-[80rem] p-5 max-md:p-3">
    <div class="mb-4 flex flex-wrap items-center gap-2">
      <RouterLink
        :to="id ? '/people/bring-in' : '/people'"
        class="btn px-2!"
        :aria-label="id ? 'Back to all files' : 'Back to all people'"
        >←</RouterLink
      >
      <h1 class="min-w-0 flex-1 truncate">{{ row && id ? row.name : 'Bring people in' }}</h1>
    </div>
    <ErrorBox v-if="id" :error="error" />

    <template v-if="!id">
      <section class="sheet mb-4 grid gap-2 p-5">
        <label class="grid gap-1"
          ><span class="font-semibold"
            >A file of people: a table (CSV, .xlsx, .ods), cards of an address book (vCard), or what was taken
            out here</span
          >
          <input
            type="file"
            accept=".csv,.tsv,.txt,.vcf,.jsonl,.xlsx,.ods,.xls,text/csv,text/vcard"
            class="input max-w-md"
            @change="choose"
          />
        </label>
        <p class="text-sm text-ink-2">
          It is only looked at first: you see what each row would do before anybody is on your list. Any
          spreadsheet can save a table as CSV.
        </p>
        <p v-if="form.busy.value" role="status">Reading it …</p>
      </section>
      <section v-if="before?.length" class="sheet p-5" aria-labelledby="before-title">
        <h2 id="before-title" class="mb-2">Brought in before</h2>
        <ul class="grid gap-1">
          <li v-for="one in before" :key="one.id" class="flex flex-wrap gap-x-3">
            <RouterLink class="btn-link" :to="`/people/bring-in/${one.id}`">{{ one.name }}</RouterLink>
            <span class="text-ink-2"
              >{{ saidTime(one.added_at, now, zone) }} · {{ STATES[one.state] ?? one.state
              }}<template v-if="one.state === 'done'">
                · {{ people(one.new) }} new, {{ people(one.joined) }} joined,
                {{ people(one.refused) }} refused</template
              ></span
            >
          </li>
        </ul>
      </section>
    </template>

    <template v-else-if="row && row.state === 'read'">
      <ImportColumns v-if="row.form === 'csv'" v-model="settings" :row="row" @keep="keep" />

      <section class="sheet mb-4 grid grid-cols-1 gap-3 p-4" aria-labelledby="all-title">
        <h2 id="all-title">What holds of everybody in it</h2>
        <label class="grid w-full max-w-md grid-cols-1 gap-1"
          >They get these tags<input
            v-model="settings.tags"
            class="input"
            list="tags-there"
            placeholder="fair, spring"
            @change="keep" /><datalist id="tags-there">
            <option v-for="one in tags" :key="one.tag" :value="one.tag" /></datalist
        ></label>
        <div class="flex flex-wrap gap-3">
          <label class="grid w-96 max-w-full grid-cols-1 gap-1"
            >They agreed to news: where<input
              v-model="settings.source"
              class="input"
              maxlength="300"
              placeholder="The sheet on the counter"
              @change="keep"
          /></label>
          <label class="grid gap-1"
            >and when<WhenBox :value="settings.date" @set="((settings.date = $event ?? ''), keep())"
          /></label>
        </div>
        <p class="text-sm text-ink-2">
          {{
            half
              ? 'Say both: where they agreed, and when.'
              : saysItself
                ? 'The file says it of each of them, as it was exported.'
                : 'Left empty, they have agreed to nothing, and news may not be sent to them.'
          }}
        </p>
        <p v-if="form.error.value" class="font-semibold text-rust" role="alert">
          {{ Object.values(form.fields.value)[0] ?? form.error.value.message }}
        </p>
      </section>

      <ImportTrial
        :trial="trial"
        :error="untried"
        :trying="trying"
        :free="!form.busy.value && !half"
        @take="go"
        @forget="forget"
      />
    </template>

    <ImportDone v-else-if="row" :row="row" :error="form.error.value?.message" @undo="back" @take="go" />
  </div>
</template>
