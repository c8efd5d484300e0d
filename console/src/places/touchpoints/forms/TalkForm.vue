<script setup lang="ts">
import { computed, inject, ref } from 'vue'
import { rehearseTalk, type Turn } from '@/api/talks'
import { useForm } from '@/parts/form'
import type { PartOf } from '@/api/document'
import RichBox from '@/parts/fields/RichBox.vue'
import { runsToHtml, type Run } from '@/parts/fields/runs'
import SelectBox from '@/parts/fields/SelectBox.vue'
import TickBox from '@/parts/fields/TickBox.vue'
import WordsBox from '@/parts/fields/WordsBox.vue'
import { FIRST_WORDS } from '../fresh'

/** The script of a conversation: its turns, and a rehearsal of it. */
const props = defineProps<{ part: PartOf<'talk'> }>()
const emit = defineEmits<{ set: [patch: Record<string, unknown>] }>()
const words = inject(FIRST_WORDS, undefined)
type Script = PartOf<'talk'>['script']
type One = Script['turns'][number]
type Choice = One['choices'][number]
const SLOTS = {
  promise: 'when we answer',
  closing_time: 'when we close',
  open_now: 'open till …, or when again',
  next_opening: 'when we open',
  back_at: 'when somebody is back',
}
const THEN = {
  choices: 'offers replies',
  asks: 'asks for something',
  person: 'hands over to a person',
  next: 'goes on',
  end: 'ends',
}
const ASKS = { text: 'their words', email: 'an email address', phone: 'a phone number' }
const open = ref(props.part.script.start)
const then = (one: One): keyof typeof THEN =>
  one.choices.length ? 'choices' : one.asks ? 'asks' : one.hands_over ? 'person' : one.next ? 'next' : 'end'
const plain = (runs: readonly Run[]) => runs.map((run) => (typeof run === 'string' ? run : '…')).join('')
const nameOf = (one: One) =>
  plain((one.says[0] ?? []) as Run[]).slice(0, 40) || (one.asks ? `asks for ${ASKS[one.asks]}` : one.id)
const places = computed(() => Object.fromEntries(props.part.script.turns.map((one) => [one.id, nameOf(one)])))
const ways = computed(() => ({ '': 'nowhere: it stays here', ...places.value }))

function put(turns: One[], start = props.part.script.start) {
  emit('set', { script: { ...props.part.script, start, turns } })
}
const change = (id: string, patch: Partial<One>) =>
  put(props.part.script.turns.map((one) => (one.id === id ? { ...one, ...patch } : one)))
const EMPTY = {
  says: [],
  choices: [],
  asks: null,
  may_skip: false,
  next: null,
  hands_over: false,
  goal: false,
}
const last = () =>
  props.part.script.turns.find((one) => one.hands_over)?.id ??
  props.part.script.turns[props.part.script.turns.length - 1]?.id ??
  null
function free(stem: string, taken: string[]): string {
  let number = 1
  while (taken.includes(`${stem}${number}`)) number++
  return `${stem}${number}`
}
function setThen(one: One, what: string) {
  const id = free(
    'c',
    one.choices.map((each) => each.id),
  )
  const patches: Record<string, Partial<One>> = {
    choices: {
      choices: [
        { id, label: words?.value?.yes ?? '', tags: [], says: [], next: last(), goal: false, series: null },
      ],
      asks: null,
      next: null,
      hands_over: false,
      may_skip: false,
    },
    asks: { choices: [], asks: 'text', next: last() === one.id ? null : last(), hands_over: false },
    person: { choices: [], asks: null, next: null, hands_over: true, may_skip: false },
    next: { choices: [], asks: null, next: last(), hands_over: false, may_skip: false },
    end: { choices: [], asks: null, next: null, hands_over: false, may_skip: false },
  }
  change(one.id, patches[what] ?? {})
}
const choice = (one: One, at: number, patch: Partial<Choice>) =>
  change(one.id, { choices: one.choices.map((each, index) => (index === at ? { ...each, ...patch } : each)) })
const addChoice = (one: One) =>
  change(one.id, {
    choices: [
      ...one.choices,
      {
        id: free(
          'c',
          one.choices.map((each) => each.id),
        ),
        label: words?.value?.reply ?? '',
        tags: [],
        says: [],
        next: last(),
        goal: false,
        series: null,
      },
    ],
  })
/** A turn that nobody came to would be refused, so it begins as what a reply of the open one leads to. */
function addTurn() {
  const id = free(
    'turn',
    props.part.script.turns.map((one) => one.id),
  )
  const at = props.part.script.turns.find((one) => one.id === open.value) ?? props.part.script.turns[0]
  if (!at) return
  const made: One = {
    ...EMPTY,
    id,
    says: [[words?.value?.then ?? '']],
    next: at.choices.length ? last() : at.next,
    hands_over: false,
  } as One
  if (!made.next) made.hands_over = true
  const from: One = at.choices.length
    ? {
        ...at,
        choices: [
          ...at.choices,
          {
            id: free(
              'c',
              at.choices.map((each) => each.id),
            ),
            label: words?.value?.reply ?? '',
            tags: [],
            says: [],
            next: id,
            goal: false,
            series: null,
          },
        ],
      }
    : { ...at, hands_over: false, next: id }
  put(props.part.script.turns.flatMap((one) => (one.id === at.id ? [from, made] : [one])))
  open.value = id
}
/** What led to it leads on to where it led. */
function drop(one: One) {
  const to = one.next ?? (one.choices[0]?.next === one.id ? null : (one.choices[0]?.next ?? null))
  const mend = (next: string | null) => (next === one.id ? to : next)
  const kept = props.part.script.turns
    .filter((each) => each.id !== one.id)
    .map((each) => ({
      ...each,
      next: mend(each.next),
      choices: each.choices.map((reply) => ({ ...reply, next: mend(reply.next) })),
    }))
  const start = props.part.script.start === one.id ? (kept[0]?.id ?? '') : props.part.script.start
  put(kept, start)
  open.value = start
}

const { error, run } = useForm()
const played = ref<{ from: string; text: string }[]>([])
const turn = ref<Turn | null>(null)
const typed = ref('')
const begin = () =>
  run(async () => {
    turn.value = await rehearseTalk(props.part.script, null, null)
    played.value = turn.value.messages.map((text) => ({ from: 'us', text }))
  })
const take = (said: Record<string, unknown>, words: string) =>
  run(async () => {
    const found = await rehearseTalk(props.part.script, turn.value?.state ?? null, said)
    played.value = [
      ...played.value,
      { from: 'them', text: words },
      ...found.messages.map((text) => ({ from: 'us', text })),
    ]
    played.value.push(...found.effects.map((text) => ({ from: 'note', text })))
    turn.value = found
    typed.value = ''
  })
</script>

<template>
  <WordsBox label="Hint in the field" :value="part.hint" @set="emit('set', { hint: $event })" />
  <TickBox :value="part.files" @set="emit('set', { files: $event })"
    >they may send pictures and PDF, up to 10 MB each</TickBox
  >
  <p class="text-sm text-ink-2">
    What is said, turn by turn. Whatever they type where replies are offered goes to a person.
  </p>
  <ol class="grid grid-cols-1 gap-1.5">
    <li
      v-for="(one, number) in part.script.turns"
      :key="one.id"
      class="min-w-0 rounded-md border border-line"
    >
      <button
        type="button"
        class="flex w-full items-baseline gap-2 px-2 py-1.5 text-left"
        :aria-expanded="open === one.id"
        @click="open = open === one.id ? '' : one.id"
      >
        <span class="text-ink-2">{{ number + 1 }}</span>
        <span class="min-w-0 flex-1 truncate font-semibold">{{ nameOf(one) }}</span>
        <span class="text-xs text-ink-2">{{ THEN[then(one)] }}</span>
      </button>
      <div v-if="open === one.id" class="grid gap-2 border-t border-line-2 p-2">
        <div v-for="(line, at) in one.says" :key="at">
          <RichBox
            :label="`Words of turn ${number + 1}`"
            plain
            :html="runsToHtml(line as Run[])"
            :slots="SLOTS"
            @runs="
              change(one.id, {
                says: one.says.map((each, index) => (index === at ? ($event as typeof each) : each)),
              })
            "
          />
        </div>
        <span class="flex gap-3 text-sm">
          <button
            v-if="one.says.length < 5"
            type="button"
            class="btn-link"
            @click="change(one.id, { says: [...one.says, ['…']] })"
          >
            + Words
          </button>
          <button
            v-if="one.says.length"
            type="button"
            class="btn-link"
            @click="change(one.id, { says: one.says.slice(0, -1) })"
          >
            − Words
          </button>
        </span>
        <SelectBox label="And then it" :value="then(one)" :options="THEN" @set="setThen(one, $event)" />
        <template v-if="one.choices.length">
          <fieldset
            v-for="(reply, at) in one.choices"
            :key="reply.id"
            class="grid gap-1 rounded-md border border-line-2 p-2"
          >
            <legend class="text-sm text-ink-2">Reply {{ at + 1 }}</legend>
            <span class="flex gap-1">
              <input
                class="input"
                :value="reply.label"
                :aria-label="`Words of reply ${at + 1}`"
                maxlength="60"
                @change="choice(one, at, { label: ($event.target as HTMLInputElement).value || reply.label })"
              />
              <button
                type="button"
                class="btn px-1.5!"
                :disabled="one.choices.length === 1"
                :aria-label="`Remove ${reply.label}`"
                @click="change(one.id, { choices: one.choices.filter((_, index) => index !== at) })"
              >
                ✕
              </button>
            </span>
            <WordsBox
              label="Answered at once with"
              :value="plain((reply.says[0] ?? []) as Run[])"
              @set="choice(one, at, { says: $event ? [[$event]] : [] })"
            />
            <SelectBox
              label="Leads to"
              :value="reply.next ?? ''"
              :options="ways"
              @set="choice(one, at, { next: $event || null })"
            />
            <WordsBox
              label="Gives the tags"
              placeholder="booking, summer"
              :value="reply.tags.join(', ')"
              @set="
                choice(one, at, {
                  tags: $event
                    .split(',')
                    .map((tag) => tag.trim())
                    .filter(Boolean),
                })
              "
            />
          </fieldset>
          <button
            v-if="one.choices.length < 8"
            type="button"
            class="btn-link justify-self-start text-sm"
            @click="addChoice(one)"
          >
            + Reply
          </button>
        </template>
        <template v-if="one.asks">
          <SelectBox
            label="For"
            :value="one.asks"
            :options="ASKS"
            @set="change(one.id, { asks: $event as One['asks'] })"
          />
          <TickBox :value="one.may_skip" @set="change(one.id, { may_skip: $event })"
            >they may rather not</TickBox
          >
        </template>
        <SelectBox
          v-if="then(one) === 'next' || then(one) === 'asks'"
          label="Goes on to"
          :value="one.next ?? ''"
          :options="then(one) === 'asks' ? { '': 'a person', ...places } : places"
          @set="change(one.id, { next: $event || null })"
        />
        <button
          v-if="part.script.turns.length > 1"
          type="button"
          class="btn-link justify-self-start text-sm text-rust"
          @click="drop(one)"
        >
          Remove this turn
        </button>
      </div>
    </li>
  </ol>
  <button type="button" class="btn justify-self-start" @click="addTurn">+ Turn</button>
  <section
    class="grid grid-cols-1 gap-2 rounded-md bg-petrol-wash p-2"
    aria-label="Rehearse the conversation"
  >
    <button type="button" class="btn justify-self-start" @click="begin">
      {{ turn ? 'Begin again' : 'Rehearse it' }}
    </button>
    <p v-if="error" class="text-sm font-semibold text-rust" role="alert">{{ error.message }}</p>
    <ol v-if="turn" class="grid gap-1 text-sm" role="log">
      <li
        v-for="(one, at) in played"
        :key="at"
        class="w-fit max-w-full rounded px-2 py-1 break-words"
        :class="
          one.from === 'them'
            ? 'justify-self-end bg-petrol text-sheet'
            : one.from === 'us'
              ? 'bg-sheet'
              : 'text-ink-2 italic'
        "
      >
        {{ one.text }}
      </li>
    </ol>
    <span v-if="turn?.choices.length" class="flex flex-wrap gap-1">
      <button
        v-for="one in turn.choices"
        :key="one.id"
        type="button"
        class="btn"
        @click="take({ choice: one.id }, one.label)"
      >
        {{ one.label }}
      </button>
    </span>
    <form
      v-if="turn"
      class="flex gap-1"
      novalidate
      @submit.prevent="
        typed.trim() &&
        take(turn.asks && turn.asks !== 'text' ? { address: { email: typed } } : { text: typed }, typed)
      "
    >
      <input
        v-model="typed"
        class="input"
        aria-label="What they write"
        :placeholder="turn.asks ? ASKS[turn.asks as keyof typeof ASKS] : 'what they write'"
      />
      <button class="btn">Say it</button>
    </form>
  </section>
</template>
