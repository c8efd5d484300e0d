<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useHours, useReplies, type ReplyCell } from '@/api/hours'
import { useMay } from '@/api/me'
import ErrorBox from '@/parts/ErrorBox.vue'
import PromiseForm from './PromiseForm.vue'
import ReplyForm from './ReplyForm.vue'
import WhatWouldTheySee from './WhatWouldTheySee.vue'
import { SITUATIONS } from './words'

/** The table of replies: the four situations, everywhere and wherever something of its own is said. */
const may = useMay()
const language = ref('')
const { data: table, error, refetch } = useReplies(language)
const { data: hours } = useHours()
const queries = useQueryClient()
const router = useRouter()
const fresh = () => queries.invalidateQueries()
/** Columns that were opened here and say nothing of their own yet. */
const opened = ref<string[]>([])
const columns = computed(() => [
  { id: '', name: 'Everywhere, unless changed', kind: '', hides: false },
  ...(table.value?.columns ?? []).filter((one) => one.departs || opened.value.includes(one.id)),
])
const more = computed(() =>
  (table.value?.columns ?? []).filter((one) => !one.departs && !opened.value.includes(one.id)),
)
const chosen = ref<{ situation: string; column: string } | null>(null)
watch(language, () => (chosen.value = null))

function cellOf(situation: string, column: string): ReplyCell {
  const row = table.value?.rows.find((one) => one.situation === situation)
  const everywhere = row?.cells[0] as ReplyCell
  return row?.cells.find((one) => one.column === column) ?? { ...everywhere, column, own: false }
}
const cell = computed(() => (chosen.value ? cellOf(chosen.value.situation, chosen.value.column) : null))
const nameOf = (column: string) => columns.value.find((one) => one.id === column)?.name ?? column
const isNow = (situation: string) =>
  table.value?.rows.some((one) => one.situation === situation && one.in_effect)
const otherTongue = (one: ReplyCell) => one.from_language !== table.value?.language
const TONGUES = [
  'en',
  'cy',
  'de',
  'fr',
  'es',
  'it',
  'nl',
  'pt',
  'pl',
  'da',
  'sv',
  'fi',
  'cs',
  'uk',
  'ar',
  'ja',
  'zh',
]
const names = new Intl.DisplayNames('en', { type: 'language' })
const unspoken = computed(() =>
  TONGUES.filter((one) => !table.value?.languages.some((known) => known.code === one)),
)

/** To where a reason comes from: a set of hours, the promise, or a cell of the table. */
function go(hoursId: number | null, place: string, about: string) {
  if (place === 'hours') return void router.push({ path: '/hours', query: hoursId ? { set: hoursId } : {} })
  if (place === 'replies') {
    const [, situation = 'open', column = 'everywhere', tongue = ''] = about.split('.')
    language.value = tongue === table.value?.own_language ? '' : tongue
    chosen.value = { situation, column: column === 'everywhere' ? '' : column }
  }
  const found = document.getElementById(place === 'replies' ? 'replies' : 'promise-hours')
  found?.scrollIntoView({ block: 'start' })
  found?.focus()
}
</script>

<template>
  <div>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!table && !error" class="sheet h-96 opacity-60" aria-busy="true" />
    <div v-if="table" class="grid grid-cols-[minmax(0,1fr)_22rem] items-start gap-5 max-lg:grid-cols-1">
      <section id="replies" tabindex="-1" aria-labelledby="told" class="min-w-0">
        <div class="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2">
          <h2 id="told">What visitors are told</h2>
          <label class="grid text-sm text-ink-2"
            >Language<select
              class="input w-44!"
              :value="table.language"
              @change="language = ($event.target as HTMLSelectElement).value"
            >
              <option v-for="one in table.languages" :key="one.code" :value="one.code">
                {{ one.name }}{{ one.written ? ` · ${one.written} written` : '' }}
              </option>
              <optgroup label="Another language">
                <option v-for="one in unspoken" :key="one" :value="one">{{ names.of(one) }}</option>
              </optgroup>
            </select></label
          >
          <label v-if="more.length" class="grid text-sm text-ink-2"
            >Something of its own for<select
              class="input w-52!"
              value=""
              @change="
                ((opened = [...opened, ($event.target as HTMLSelectElement).value]),
                (($event.target as HTMLSelectElement).value = ''))
              "
            >
              <option value="" disabled>choose one …</option>
              <option v-for="one in more" :key="one.id" :value="one.id">
                {{ one.name }} · {{ one.kind }}
              </option>
            </select></label
          >
        </div>
        <div class="sheet overflow-x-auto">
          <table class="w-full border-collapse text-left">
            <thead>
              <tr class="border-b border-line">
                <th scope="col" class="w-32 p-2.5 font-semibold">When</th>
                <th v-for="one in columns" :key="one.id" scope="col" class="min-w-44 p-2.5 font-semibold">
                  {{ one.name
                  }}<span v-if="one.kind" class="block text-sm font-normal text-ink-2">{{ one.kind }}</span>
                </th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="row in table.rows"
                :key="row.situation"
                class="border-b border-line-2 align-top last:border-0"
                :class="{ 'bg-petrol-wash': row.in_effect }"
              >
                <th
                  scope="row"
                  class="border-l-4 p-2.5 font-semibold"
                  :class="row.in_effect ? 'border-petrol' : 'border-transparent'"
                >
                  {{ SITUATIONS[row.situation] }}
                  <span v-if="row.in_effect" class="chip">now</span>
                  <span v-if="!row.comes" class="block text-sm font-normal text-ink-2"
                    >none in your hours</span
                  >
                </th>
                <td v-for="column in columns" :key="column.id" class="p-1.5">
                  <button
                    type="button"
                    class="w-full rounded-md border p-1.5 text-left hover:bg-petrol-tint"
                    :class="
                      chosen?.situation === row.situation && chosen.column === column.id
                        ? 'border-petrol bg-sheet'
                        : 'border-transparent'
                    "
                    :aria-pressed="chosen?.situation === row.situation && chosen.column === column.id"
                    @click="chosen = { situation: row.situation, column: column.id }"
                  >
                    <span class="sr-only">Change: {{ SITUATIONS[row.situation] }}, {{ column.name }}. </span>
                    <template v-for="one in [cellOf(row.situation, column.id)]" :key="one.column">
                      <span v-if="one.hidden" :class="one.own ? 'font-semibold' : 'text-ink-2'">{{
                        column.hides && (one.own || column.kind === 'channel')
                          ? 'hidden while so'
                          : 'says nothing'
                      }}</span>
                      <span v-else :class="one.own || !column.id ? '' : 'text-ink-2'">
                        <strong v-if="one.title" class="block font-semibold">{{ one.title }}</strong>{{
                          one.text
                        }}<span v-if="one.button" class="chip mt-1 block w-fit">{{ one.button }}</span>
                      </span>
                      <span v-if="!one.own" class="block text-sm text-ink-2">{{
                        column.id && !one.from_column
                          ? 'as everywhere'
                          : one.ships
                            ? `the usual words${otherTongue(one) ? `, in ${names.of(one.from_language)}` : ''}`
                            : one.not_whole
                              ? `in ${names.of(one.from_language)}: it has a time that cannot be said otherwise`
                              : `in ${names.of(one.from_language)}: nothing is written here`
                      }}</span>
                    </template>
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="mt-2 text-sm text-ink-2">
          A cell that says nothing of its own says what stands to its left. Click one to change it; its row
          counts only while it is so.
        </p>
      </section>
      <div class="grid gap-5">
        <ReplyForm
          v-if="chosen && cell"
          :key="`${chosen.situation} ${chosen.column} ${table.language}`"
          :inert="!may('hours')"
          :cell="cell"
          :hides="columns.find((one) => one.id === chosen?.column)?.hides ?? false"
          :situation="chosen.situation"
          :language="table.language"
          :name="`${SITUATIONS[chosen.situation]}${isNow(chosen.situation) ? ' · now' : ''} — ${nameOf(chosen.column)}`"
          @changed="fresh"
          @close="chosen = null"
        />
        <WhatWouldTheySee
          v-if="hours"
          :sets="[hours.main, ...hours.others]"
          :situations="SITUATIONS"
          :columns="table.columns"
          :languages="table.languages"
          @go="go"
        />
        <fieldset class="contents" :disabled="!may('business')">
          <PromiseForm v-if="hours" :minutes="hours.promise_minutes" :now-said="hours.promise_now" />
        </fieldset>
      </div>
    </div>
  </div>
</template>
