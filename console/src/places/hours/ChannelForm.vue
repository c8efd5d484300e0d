<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { dropChannel, previewChannel, readExample, saveChannel, type Channel, type ChannelDocument } from '@/api/channels'
import type { Schemas } from '@/api/client'
import type { HoursSet } from '@/api/hours'
import { qrOf, useMembers } from '@/api/me'
import { useForm } from '@/places/account/form'
import ColourBox from '@/places/touchpoints/fields/ColourBox.vue'
import RichBox from '@/places/touchpoints/fields/RichBox.vue'
import { runsToHtml, type Run } from '@/places/touchpoints/fields/runs'
import { useNotices } from '@/lib/notices'
import ActIcon from '@/parts/ActIcon.vue'
import { HANDLES, ICONS, KINDS, LINK_SLOTS, WITH_TEXT } from './channels'
import { SITUATIONS } from './words'

/** One channel: where it leads, who is behind it, when, and how visitors meet it in every situation. */
const props = defineProps<{ channel: Channel; sets: HoursSet[] }>()
const emit = defineEmits<{ changed: []; dropped: [] }>()
const notices = useNotices()
const { data: members } = useMembers()
const { error, fields, busy, run } = useForm()
const copied = () => JSON.parse(JSON.stringify(props.channel.document)) as ChannelDocument
const draft = ref(copied())
const before = computed(() => JSON.stringify(props.channel.document))
const changed = computed(() => JSON.stringify(draft.value) !== before.value)
watch(before, () => (draft.value = copied()))
const wrong = (place: string) => fields.value[`document.${place}`]

const seen = ref<Schemas['PreviewOut'][]>([])
const look = useDebounceFn(async () => {
  try {
    seen.value = await previewChannel(draft.value, props.channel.public_id)
  } catch {
    // What is not right yet is said when it is saved.
  }
}, 250)
watch(draft, look, { deep: true, immediate: true })

async function keep() {
  const was = copied()
  await saveChannel(props.channel.id, draft.value)
  emit('changed')
  notices.say('Saved. Visitors get it within a second.', {
    about: `channel ${props.channel.id}`,
    undo: () => saveChannel(props.channel.id, was).then(() => emit('changed')),
  })
}
async function drop() {
  await dropChannel(props.channel.id)
  emit('dropped')
}
const example = ref('')
const learn = () =>
  run(async () => {
    const found = await readExample(example.value)
    Object.assign(draft.value, { template: found.template, handle: found.handle })
    example.value = ''
  })
const addPerson = () => draft.value.people.push({ name: '', words: '', picture: null, handle: '', hours: [], member: null })
const toggle = (list: number[], id: number): number[] => (list.includes(id) ? list.filter((one) => one !== id) : [...list, id])
function device(name: 'desktop' | 'phone', on: boolean) {
  const kept = (['desktop', 'phone'] as const).filter((one) => (one === name ? on : draft.value.devices.includes(one)))
  if (kept.length) draft.value.devices = kept
}
const qr = ref('')
async function showCode() {
  qr.value = qr.value ? '' : await qrOf(props.channel.on_a_phone || props.channel.short)
}
const place = (name: string) => `${props.channel.short}?at=${name}`
</script>

<template>
  <section class="grid gap-5" :aria-label="channel.document.label">
    <form class="sheet grid gap-3 p-5" novalidate @submit.prevent="run(keep)">
      <div class="flex flex-wrap items-center gap-3">
        <h2>{{ channel.document.label }}</h2>
        <span class="chip">{{ KINDS[draft.kind] }}</span>
        <span class="ml-auto flex flex-wrap items-center gap-3">
          <a v-if="channel.link" class="btn" :href="channel.link" target="_blank" rel="noopener">Try it</a>
          <button type="button" class="btn" :aria-expanded="!!qr" @click="run(showCode)">On a phone</button>
          <button type="button" class="btn text-rust" @click="run(drop)">Delete</button>
        </span>
      </div>
      <div v-if="qr" class="flex items-center gap-4 rounded-md bg-petrol-wash p-3">
        <img class="size-32 shrink-0 bg-white p-1" :src="`data:image/svg+xml,${encodeURIComponent(qr)}`" alt="The link as a QR code" />
        <p class="text-sm text-ink-2">
          Point a phone at it: it opens <code class="break-all">{{ channel.on_a_phone }}</code>
        </p>
      </div>
      <div class="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
        <label class="grid content-start text-sm text-ink-2"
          >What visitors read<input v-model="draft.label" class="input" maxlength="60" :aria-invalid="!!wrong('label')" /><span
            v-if="wrong('label')"
            class="font-semibold text-rust"
            >{{ wrong('label') }}</span
          ></label
        >
        <label class="grid content-start text-sm text-ink-2"
          >{{ HANDLES[draft.kind]?.[0]
          }}<input v-model="draft.handle" class="input" :placeholder="HANDLES[draft.kind]?.[1]" :aria-invalid="!!wrong('handle')" /><span
            v-if="wrong('handle')"
            class="font-semibold text-rust"
            >{{ wrong('handle') }}</span
          ></label
        >
      </div>
      <div v-if="draft.kind === 'message-link'">
        <p class="text-sm text-ink-2">Link</p>
        <p class="input break-all bg-petrol-wash">{{ draft.template }}</p>
        <details class="mt-1 text-sm">
          <summary class="text-petrol">Another link</summary>
          <span class="mt-1 flex items-end gap-2"
            ><label class="grid grow text-ink-2"
              >One example with your handle in it, and “hello there” as its words<input
                v-model="example"
                class="input"
                :aria-invalid="!!fields.example" /></label
            ><button type="button" class="btn" @click="learn">Understand it</button></span
          >
        </details>
      </div>
      <label v-if="draft.kind === 'map'" class="grid text-sm text-ink-2"
        >The map that shows it on a desktop<input
          class="input"
          :value="draft.template ?? ''"
          placeholder="https://… paste the address of the map"
          @change="draft.template = ($event.target as HTMLInputElement).value.trim() || null"
        /><span v-if="wrong('template')" class="font-semibold text-rust">{{ wrong('template') }}</span></label
      >
      <div v-if="WITH_TEXT.includes(draft.kind)">
        <template v-if="draft.kind === 'mail'">
          <p class="text-sm text-ink-2">Subject</p>
          <RichBox label="Subject" plain :html="runsToHtml(draft.subject)" :slots="LINK_SLOTS" @runs="draft.subject = $event as Run[]" />
        </template>
        <p class="text-sm text-ink-2">First words, which they can change before they send them</p>
        <RichBox label="First words" plain :html="runsToHtml(draft.text)" :slots="LINK_SLOTS" @runs="draft.text = $event as Run[]" />
      </div>
      <fieldset class="grid gap-2">
        <legend class="text-sm text-ink-2">Who answers</legend>
        <div v-for="(one, at) in draft.people" :key="at" class="grid gap-2 rounded-md border border-line-2 p-2">
          <span class="grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-2 max-md:grid-cols-2">
            <label class="grid text-sm text-ink-2">Name<input v-model="one.name" class="input" maxlength="80" /></label>
            <label class="grid text-sm text-ink-2">For what<input v-model="one.words" class="input" maxlength="200" /></label>
            <label class="grid text-sm text-ink-2"
              >{{ HANDLES[draft.kind]?.[0] }}<input v-model="one.handle" class="input" placeholder="the channel’s"
            /></label>
            <button type="button" class="btn px-1.5!" :aria-label="`Take out ${one.name}`" @click="draft.people.splice(at, 1)">✕</button>
          </span>
          <span class="flex flex-wrap items-end gap-3 text-sm">
            <label class="grid text-ink-2"
              >At the counter as<select v-model="one.member" class="input w-44!">
                <option :value="null">nobody of us</option>
                <option v-for="member in members" :key="member.id" :value="member.id">{{ member.name }}</option>
              </select></label
            >
            <fieldset class="flex flex-wrap gap-x-3">
              <legend class="text-ink-2">Only in the hours of</legend>
              <label v-for="set in sets" :key="set.id" class="flex items-center gap-1"
                ><input type="checkbox" :checked="one.hours.includes(set.id)" @change="one.hours = toggle(one.hours, set.id)" />
                {{ set.name }}</label
              >
            </fieldset>
          </span>
          <template v-for="part in ['name', 'handle', 'hours', 'member']" :key="part">
            <p v-if="wrong(`people.${at}.${part}`)" class="font-semibold text-rust">{{ wrong(`people.${at}.${part}`) }}</p>
          </template>
        </div>
        <span class="flex flex-wrap items-end gap-3"
          ><button type="button" class="btn" @click="addPerson">+ Somebody</button
          ><label v-if="draft.people.length" class="grid text-sm text-ink-2"
            >They get<select v-model="draft.pick" class="input w-56!">
              <option value="visitor">whom they choose</option>
              <option value="first-reachable">whoever can be reached first</option>
            </select></label
          ></span
        >
      </fieldset>
      <div class="flex flex-wrap items-end gap-x-5 gap-y-2">
        <fieldset class="flex flex-wrap gap-x-3">
          <legend class="text-sm text-ink-2">Open in the hours of{{ draft.hours.length > 1 ? ' any of' : '' }}</legend>
          <label v-for="(set, at) in sets" :key="set.id" class="flex items-center gap-1"
            ><input type="checkbox" :checked="draft.hours.includes(set.id)" @change="draft.hours = toggle(draft.hours, set.id)" />
            {{ set.name
            }}{{ at === 0 && !draft.hours.length && !['map', 'page'].includes(draft.kind) ? ' (unless another is ticked)' : '' }}</label
          >
        </fieldset>
        <label class="grid text-sm text-ink-2"
          >While closed<select v-model="draft.while_closed" class="input w-56!">
            <option value="say">say what the table says</option>
            <option value="show">show it as it is</option>
            <option value="hide">hide it</option>
          </select></label
        >
        <label class="grid text-sm text-ink-2"
          >A click<select v-model="draft.opens" class="input w-56!">
            <option value="new">opens it beside the page</option>
            <option value="same">leaves the page for it</option>
            <option v-if="WITH_TEXT.includes(draft.kind)" value="ask-first">asks for their words first</option>
          </select></label
        >
        <fieldset class="flex gap-x-3">
          <legend class="text-sm text-ink-2">Shown on</legend>
          <label v-for="one in ['desktop', 'phone'] as const" :key="one" class="flex items-center gap-1"
            ><input
              type="checkbox"
              :checked="draft.devices.includes(one)"
              @change="device(one, ($event.target as HTMLInputElement).checked)"
            />
            {{ one }}s</label
          >
        </fieldset>
        <label class="flex items-center gap-1"><input v-model="draft.goal" type="checkbox" /> a click reaches the goal</label>
      </div>
      <div class="flex flex-wrap items-end gap-4">
        <fieldset class="flex flex-wrap gap-1">
          <legend class="text-sm text-ink-2">Icon</legend>
          <button
            v-for="(name, icon) in ICONS"
            :key="icon"
            type="button"
            class="btn px-1.5!"
            :class="{ '!border-petrol bg-petrol-tint': draft.icon === icon }"
            :aria-label="`Icon: ${name}`"
            :aria-pressed="draft.icon === icon"
            @click="draft.icon = icon"
          >
            <ActIcon :icon="icon" />
          </button>
        </fieldset>
        <span class="flex items-center gap-2 text-sm text-ink-2"
          >Colour
          <ColourBox label="Colour of the icon" :value="draft.colour ?? '#0e4f57'" @set="draft.colour = $event" />
          <button v-if="draft.colour" type="button" class="btn-link" @click="draft.colour = null">the house style’s</button></span
        >
      </div>
      <p v-if="error" class="font-semibold text-rust" role="alert">{{ fields.document ?? Object.values(fields)[0] ?? error.message }}</p>
      <span class="flex items-center gap-3">
        <button class="btn btn-main" :disabled="busy || !changed">Save the channel</button>
        <button v-if="changed" type="button" class="btn" @click="draft = copied()">Put back</button>
        <span v-if="changed" class="text-brass">not saved yet</span>
      </span>
    </form>

    <section class="grid gap-2" aria-labelledby="met">
      <h2 id="met">As visitors meet it</h2>
      <div class="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
        <div
          v-for="one in seen"
          :key="one.situation"
          class="rounded-lg border-2 bg-fog p-3"
          :class="one.in_effect ? 'border-petrol' : 'border-line'"
        >
          <h3 class="mb-2 text-sm font-semibold" :class="one.in_effect ? 'text-petrol' : 'text-ink-2'">
            {{ SITUATIONS[one.situation] }}{{ one.in_effect ? ' · now' : '' }}
          </h3>
          <p v-if="one.hidden" class="text-sm text-ink-2">It is not shown.</p>
          <div v-else class="sheet ml-auto w-fit max-w-full p-2.5 text-sm">
            <p v-if="one.title" class="font-semibold">{{ one.title }}</p>
            <p v-if="one.text">{{ one.text }}</p>
            <span class="btn btn-main mt-1.5 w-full justify-center"><ActIcon :icon="draft.icon" :size="16" /> {{ one.button }}</span>
            <p v-for="who in one.people" :key="who.name" class="mt-1 flex justify-between gap-3">
              <span
                >{{ who.name }} <span class="text-ink-2">{{ who.words }}</span></span
              ><span :class="who.reachable ? 'text-moss' : 'text-ink-2'">{{ who.reachable ? 'there' : 'away' }}</span>
            </p>
          </div>
        </div>
      </div>
      <p class="text-sm">
        <RouterLink class="btn-link" to="/hours/told">Change what is said</RouterLink>
        <span class="text-ink-2">
          · {{ channel.used_in.length ? `stands in ${channel.used_in.join(', ')}` : 'stands in no touchpoint yet' }}</span
        >
      </p>
    </section>

    <section class="sheet grid gap-2 p-5" aria-labelledby="printed">
      <h2 id="printed">For paper, signs and the van</h2>
      <p class="text-ink-2">
        A short link that you can print. Add <code>?at=</code> and a word, and the clicks are counted by where it was printed:
        <code class="break-all">{{ place('van') }}</code>
      </p>
      <span class="flex flex-wrap items-center gap-3"
        ><code class="break-all">{{ channel.short }}</code>
        <a class="btn" :href="`${channel.short}.svg`" download>QR code, SVG</a>
        <a class="btn" :href="`${channel.short}.png`" download>PNG</a></span
      >
      <p v-if="channel.printed.length">
        Followed:
        <span v-for="one in channel.printed" :key="one.place" class="mr-3">{{ one.place || 'without a word' }} {{ one.count }}</span>
      </p>
    </section>
  </section>
</template>
