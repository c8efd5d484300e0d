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
  type Column,
} from '@/api/imports'
import { useAgain, useCountedTags } from '@/api/people'
import { useClock } from '@/lib/clock'
import { saidCount, saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useForm } from '@/places/account/form'

/** A file of people: chosen, looked at, tried, taken in, and undone. */
const route = useRoute()
const router = useRouter()
const { zone, now } = useClock()
const fresh = useFresh()
const form = useForm()
const again = useAgain()
const id = computed(() => Number(route.params.id) || 0)
const { data: row, error } = useImport(id)
const { data: before } = useImports()
const { data: tags } = useCountedTags()
const COLUMNS: Record<Column, string> = {
  name: 'Name',
  email: 'Email',
  phone: 'Phone',
  tag: 'Tag',
  consent: 'Agreed: yes or no',
  note: 'Note',
  own: 'Kept as it is',
  ignored: 'Left out',
}
const DELIMITERS = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }
const ENCODINGS = { 'utf-8': 'Unicode (UTF-8)', 'windows-1252': 'Western (Windows-1252)', 'utf-16': 'Unicode (UTF-16)', 'iso-8859-2': 'Central European', 'windows-1251': 'Cyrillic', 'shift_jis': 'Japanese' } // prettier-ignore
const STATES: Record<string, string> = {
  read: 'not taken yet',
  taking: 'on its way in',
  done: 'taken in',
  undoing: 'being undone',
  undone: 'undone',
}

const settings = ref({ columns: [] as Column[], header: true, delimiter: ',', encoding: 'utf-8', tags: '', source: '', date: '' })
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
  (state) => ['done', 'undone'].includes(state ?? '') && void again(),
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
  const named = settings.value.tags.split(',').map((one) => one.trim()).filter(Boolean) // prettier-ignore
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
const what = { new: 'new', joining: 'joins', refused: 'refused' } as Record<string, string>
const people = saidCount
const asking = ref(false)
</script>

<template>
  <div class="mx-auto w-full max-w-[80rem] p-5 max-md:p-3">
    <div class="mb-4 flex flex-wrap items-center gap-2">
      <RouterLink :to="id ? '/people/bring-in' : '/people'" class="btn px-2!" :aria-label="id ? 'Back to all files' : 'Back to all people'"
        >←</RouterLink
      >
      <h1 class="min-w-0 flex-1 truncate">{{ row && id ? row.name : 'Bring people in' }}</h1>
    </div>
    <ErrorBox v-if="id" :error="error" />

    <template v-if="!id">
      <section class="sheet mb-4 grid gap-2 p-5">
        <label class="grid gap-1"
          ><span class="font-semibold">A file of people: a table (CSV) or cards of an address book (vCard)</span>
          <input type="file" accept=".csv,.tsv,.txt,.vcf,text/csv,text/vcard" class="input max-w-md" @change="choose" />
        </label>
        <p class="text-sm text-ink-2">
          It is only looked at first: you see what each row would do before anybody is on your list. Any spreadsheet can save a table as
          CSV.
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
                · {{ people(one.new) }} new, {{ people(one.joined) }} joined, {{ people(one.refused) }} refused</template
              ></span
            >
          </li>
        </ul>
      </section>
    </template>

    <template v-else-if="row && row.state === 'read'">
      <section v-if="row.form === 'csv'" class="sheet mb-4 p-4" aria-labelledby="columns-title">
        <h2 id="columns-title" class="mb-2">What its columns are</h2>
        <div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <label class="flex items-center gap-1.5"
            ><input v-model="settings.header" type="checkbox" @change="keep" /> the first row has their names</label
          >
          <label class="flex items-center gap-1.5"
            >parted by
            <select v-model="settings.delimiter" class="piece" @change="keep">
              <option v-for="(words, key) in DELIMITERS" :key="key" :value="key">{{ words }}</option>
            </select></label
          >
          <label class="flex items-center gap-1.5"
            >letters as
            <select v-model="settings.encoding" class="piece" @change="keep">
              <option v-if="!(settings.encoding in ENCODINGS)" :value="settings.encoding">{{ settings.encoding }}</option>
              <option v-for="(words, key) in ENCODINGS" :key="key" :value="key">{{ words }}</option>
            </select></label
          >
        </div>
        <div class="overflow-x-auto">
          <table class="border-collapse text-sm">
            <thead>
              <tr>
                <th v-for="(_, index) in row.columns" :key="index" class="border border-line-2 p-1.5 text-left align-bottom font-normal">
                  <span class="mb-1 block max-w-44 truncate font-semibold">{{ row.titles[index] || `Column ${index + 1}` }}</span>
                  <select
                    v-model="settings.columns[index]"
                    class="input w-36! py-1!"
                    :aria-label="`What “${row.titles[index] || `column ${index + 1}`}” is`"
                    @change="keep"
                  >
                    <option v-for="(words, key) in COLUMNS" :key="key" :value="key">{{ words }}</option>
                  </select>
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(cells, index) in row.first" :key="index">
                <td
                  v-for="(kind, column) in row.columns"
                  :key="column"
                  class="max-w-52 truncate border border-line-2 px-1.5 py-1"
                  :class="{ 'text-ink-3': kind === 'ignored' }"
                  dir="auto"
                >
                  {{ cells[column] }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>

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
          <label class="grid gap-1">and when<input v-model="settings.date" type="date" class="input" @change="keep" /></label>
        </div>
        <p class="text-sm text-ink-2">
          {{
            half ? 'Say both: where they agreed, and when.' : 'Left empty, they have agreed to nothing, and news may not be sent to them.'
          }}
        </p>
        <p v-if="form.error.value" class="font-semibold text-rust" role="alert">
          {{ Object.values(form.fields.value)[0] ?? form.error.value.message }}
        </p>
      </section>

      <section class="sheet mb-4 p-4" aria-labelledby="trial-title" :aria-busy="trying">
        <h2 id="trial-title" class="mb-2">What taking it in would do</h2>
        <ErrorBox :error="untried" />
        <template v-if="trial">
          <p class="mb-2">
            <strong>{{ people(trial.new) }}</strong> new, <strong>{{ people(trial.joining) }}</strong> join somebody who is on your list or
            in a row above, <strong :class="{ 'text-rust': trial.refused }">{{ people(trial.refused) }}</strong> refused;
            <strong>{{ people(trial.agreed) }}</strong> of them agreed to news.
            <span v-if="!trial.whole" class="text-ink-2">(The first {{ people(trial.rows) }} rows were tried.)</span>
          </p>
          <ul v-if="trial.reasons.length" class="mb-2 list-disc pl-5 text-rust">
            <li v-for="one in trial.reasons" :key="one.why">{{ people(one.rows) }} × {{ one.why }}</li>
          </ul>
          <details class="mb-3">
            <summary class="font-semibold">Row by row</summary>
            <table class="mt-1 w-full border-collapse text-sm">
              <tbody>
                <tr v-for="one in trial.lines" :key="one.number" class="border-t border-line-2">
                  <td class="w-16 py-1 text-ink-2">{{ one.number }}</td>
                  <td class="w-20 py-1 font-semibold" :class="one.what === 'refused' ? 'text-rust' : one.what === 'new' ? 'text-moss' : ''">
                    {{ what[one.what] }}
                  </td>
                  <td class="py-1 break-all" dir="auto">{{ one.words }}</td>
                </tr>
              </tbody>
            </table>
          </details>
          <div class="flex flex-wrap gap-2">
            <button
              type="button"
              class="btn btn-main"
              :disabled="form.busy.value || trying || half || !(trial.new + trial.joining)"
              @click="go"
            >
              {{ trial.whole ? `Take ${people(trial.new + trial.joining)} in` : 'Take all of them in' }}
            </button>
            <button type="button" class="btn" @click="forget">Forget this file</button>
          </div>
        </template>
        <p v-else-if="!untried" role="status">Trying it …</p>
      </section>
    </template>

    <section v-else-if="row" class="sheet p-5" aria-labelledby="done-title">
      <h2 id="done-title" class="mb-2">
        <span aria-live="polite">{{
          row.state === 'taking'
            ? `On its way in: ${people(row.position)} rows so far`
            : row.state === 'done'
              ? 'It is in'
              : row.state === 'undoing'
                ? 'It is being undone'
                : 'It is undone'
        }}</span>
      </h2>
      <p class="mb-3">
        {{ people(row.new) }} new, {{ people(row.joined) }} joined somebody, {{ people(row.refused) }} refused.
        <template v-if="row.state === 'undone'"
          >{{ row.left ? `${people(row.left)} stay: something was done with them since.` : 'Everybody it added is gone again.' }}
        </template>
      </p>
      <div class="flex flex-wrap gap-2">
        <a v-if="row.refused" class="btn" :href="`/api/imports/${row.id}/refused`" download>The refused rows, as a file</a>
        <RouterLink v-if="row.state === 'done'" class="btn" to="/people">To your people</RouterLink>
        <template v-if="row.state === 'done'">
          <template v-if="asking">
            <button type="button" class="btn text-rust" @click="((asking = false), back())">Take them all out again</button>
            <button type="button" class="btn" @click="asking = false">Cancel</button>
          </template>
          <button v-else type="button" class="btn" @click="asking = true">Undo it …</button>
        </template>
      </div>
      <p v-if="asking" class="mt-2 text-sm text-ink-2">Whoever did something since, or was worked on, stays.</p>
      <p v-if="form.error.value" class="mt-2 font-semibold text-rust" role="alert">{{ form.error.value.message }}</p>
    </section>
  </div>
</template>
