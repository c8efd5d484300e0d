<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import { computed } from 'vue'
import { useHours } from '@/api/hours'
import { useMembers } from '@/api/me'
import type { Draft } from '@/api/touchpoints'
import CodesForm from './CodesForm.vue'
import AddressBox from '@/parts/fields/AddressBox.vue'
import LibraryButton from '@/parts/fields/LibraryButton.vue'
import RichBox from '@/parts/fields/RichBox.vue'
import { runsToHtml } from '@/parts/fields/runs'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import type { Change, TouchpointDocument } from '@/api/document'

const props = defineProps<{ document: TouchpointDocument; draft: Draft; wrong: Record<string, string> }>()
const emit = defineEmits<{
  change: Change
  confirm: [on: boolean]
  csv: [wanted: boolean]
  draft: [draft: Draft]
}>()
const { data: hours } = useHours()
const { data: members } = useMembers()
type After = TouchpointDocument['after']
const after = computed(() => props.document.after)
const inquiry = computed(() => props.document.purpose === 'inquiry')
const hourSets = computed(() => ({
  '': 'the site’s main hours',
  ...Object.fromEntries((hours.value?.others ?? []).map((one) => [String(one.id), one.name])),
}))
/** Sets that it may follow besides the first. */
const alsoSets = computed(() =>
  (hours.value?.others ?? []).filter((one) => one.id !== props.document.after.hours),
)
const SLOTS = {
  first_name: 'first name',
  promise: 'when we answer',
  next_opening: 'when we open',
  code: 'the code',
  file: 'link to the file',
}

function set<K extends keyof After>(name: K, value: After[K]) {
  emit('change', `after.${name}`, (d) => (d.after[name] = value))
}
function part<K extends 'thank_you' | 'confirm' | 'file'>(name: K, patch: Partial<After[K]>) {
  emit('change', `after.${name}.${Object.keys(patch)[0]}`, (d) => Object.assign(d.after[name], patch))
}
const tags = (text: string) =>
  [
    ...new Set(
      text
        .split(',')
        .map((one) => one.trim())
        .filter(Boolean),
    ),
  ].slice(0, 20)
function tell(id: number, on: boolean) {
  set('tell', on ? [...after.value.tell, id] : after.value.tell.filter((one) => one !== id))
}
const guard = (patch: Partial<TouchpointDocument['guard']>) =>
  emit('change', `guard.${Object.keys(patch)[0]}`, (d) => Object.assign(d.guard, patch))
</script>

<template>
  <div class="grid gap-2.5">
    <TickBox :value="inquiry || after.follow_up" :disabled="inquiry" @set="set('follow_up', $event)"
      >Asks for follow-up<span class="block text-sm text-ink-2">{{
        inquiry
          ? 'A question always does.'
          : 'They are told when somebody answers, and it is due on your list.'
      }}</span></TickBox
    >
    <template v-if="inquiry || after.follow_up">
      <p class="flex items-center gap-2">
        <label for="own-promise">within</label
        ><input
          id="own-promise"
          v-typed="after.promise_minutes === null ? '' : after.promise_minutes / 60"
          type="number"
          min="0.5"
          step="0.5"
          class="input w-20!"
          placeholder="as set"
          @change="
            (event) => {
              const minutes = Math.round(Number((event.target as HTMLInputElement).value) * 60)
              set('promise_minutes', minutes >= 1 ? Math.min(minutes, 43_200) : null)
            }
          "
        />
        open hours of
      </p>
      <SelectBox
        label="Which hours apply"
        :value="String(after.hours ?? '')"
        :options="hourSets"
        @set="set('hours', $event ? Number($event) : null)"
      />
      <div v-if="alsoSets.length" role="group" aria-label="Open as well while">
        <p class="text-sm text-ink-2">open as well while</p>
        <TickBox
          v-for="one in alsoSets"
          :key="one.id"
          :value="after.also_hours.includes(one.id)"
          @set="
            set(
              'also_hours',
              $event ? [...after.also_hours, one.id] : after.also_hours.filter((id) => id !== one.id),
            )
          "
          >{{ one.name }} is open</TickBox
        >
      </div>
    </template>
    <AddressBox
      data-place="after"
      label="They go to a page instead of the thanks step"
      placeholder="none: the thanks step is shown"
      :value="after.page"
      :bad="wrong['after'] ?? wrong['after.page']"
      @set="set('page', $event)"
    />
    <WordsBox
      label="They get these tags"
      placeholder="tides, spring"
      :value="after.tags.join(', ')"
      @set="set('tags', tags($event))"
    />
    <TickBox data-place="confirm" :value="after.confirm.on" @set="emit('confirm', $event)"
      >They confirm by mail first<span class="block text-sm text-ink-2"
        >Nothing is given before. The link lasts 14 days.</span
      ></TickBox
    >
    <template v-if="after.confirm.on">
      <WordsBox
        label="Subject of that mail"
        :value="after.confirm.subject"
        @set="part('confirm', { subject: $event })"
      />
      <RichBox
        label="Words of that mail"
        plain
        :html="runsToHtml(after.confirm.text)"
        :slots="{ first_name: 'first name' }"
        @runs="part('confirm', { text: $event })"
      />
      <WordsBox
        label="Words on its page’s button"
        :value="after.confirm.button"
        @set="$event.trim() && part('confirm', { button: $event })"
      />
    </template>
    <CodesForm
      data-place="code"
      :document="document"
      :draft="draft"
      @change="(...what) => emit('change', ...what)"
      @draft="emit('draft', $event)"
    />
    <LibraryButton
      data-place="file"
      kind="file"
      label="They get a file, by a signed link"
      :value="after.file.asset"
      @set="part('file', { asset: $event })"
    />
    <WordsBox
      v-if="after.file.asset"
      label="Words on its link"
      :value="after.file.label"
      @set="part('file', { label: $event })"
    />
    <TickBox :value="after.thank_you.send" @set="part('thank_you', { send: $event })"
      >Thank them by mail</TickBox
    >
    <template v-if="after.thank_you.send">
      <WordsBox
        data-place="thank_you"
        label="Its subject"
        :value="after.thank_you.subject"
        @set="part('thank_you', { subject: $event })"
      />
      <div>
        <p class="text-sm text-ink-2">Words of the mail</p>
        <RichBox
          label="Words of the mail"
          plain
          :html="runsToHtml(after.thank_you.text)"
          :slots="SLOTS"
          @runs="part('thank_you', { text: $event })"
        />
      </div>
      <WordsBox
        label="Answers to it go to"
        placeholder="the business’s own address"
        :value="after.thank_you.reply_to"
        :bad="wrong['after.thank_you.reply_to']"
        @set="part('thank_you', { reply_to: $event.trim() })"
      />
    </template>
    <fieldset class="grid gap-1">
      <legend class="text-sm text-ink-2">Who is told by mail each time</legend>
      <TickBox
        v-for="one in members"
        :key="one.id"
        :value="after.tell.includes(one.id)"
        @set="tell(one.id, $event)"
        >{{ one.name
        }}<span v-if="!one.touchpoint_mail" class="text-ink-2">, who wants no such mail</span></TickBox
      >
    </fieldset>
    <TickBox :value="after.daily_csv" @set="set('daily_csv', $event)"
      >They, or else the owner, get the day’s answers as CSV each morning</TickBox
    >
    <div>
      <p class="text-sm text-ink-2">Secret address of all answers as CSV</p>
      <code
        v-if="draft.csv"
        class="block overflow-x-auto rounded border border-line bg-fog px-2 py-1 text-xs whitespace-nowrap"
        tabindex="0"
        aria-label="Secret address"
        >{{ draft.csv }}</code
      >
      <span class="mt-1 flex gap-2">
        <button type="button" class="btn" @click="emit('csv', true)">
          {{ draft.csv ? 'Make a new one' : 'Make one' }}
        </button>
        <button v-if="draft.csv" type="button" class="btn" @click="emit('csv', false)">Revoke it</button>
      </span>
    </div>
    <details>
      <summary class="font-semibold">Against spam</summary>
      <div class="mt-1.5 grid gap-1.5">
        <TickBox :value="document.guard.trap" @set="guard({ trap: $event })"
          >a hidden field that only machines fill in</TickBox
        >
        <span class="flex items-center gap-2"
          ><input
            v-typed="document.guard.least_seconds"
            type="number"
            class="input w-20!"
            aria-label="Least seconds"
            min="0"
            max="60"
            step="0.1"
            @change="
              guard({
                least_seconds: Math.min(
                  60,
                  Math.max(0, Number(($event.target as HTMLInputElement).value) || 0),
                ),
              })
            "
          />
          seconds at least to fill it in</span
        >
        <TickBox :value="document.guard.work" @set="guard({ work: $event })"
          >their browser does a small piece of work first</TickBox
        >
        <p class="text-sm text-ink-2">
          What looks like spam is set aside and never thrown away:
          <RouterLink to="/quarantine" class="btn-link">see what is there</RouterLink>.
        </p>
      </div>
    </details>
  </div>
</template>
