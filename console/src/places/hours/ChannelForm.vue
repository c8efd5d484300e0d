<script setup lang="ts">
import { ref } from 'vue'
import { dropChannel, readExample, saveChannel, type Channel, type ChannelDocument } from '@/api/channels'
import type { HoursSet } from '@/api/hours'
import { qrOf } from '@/api/me'
import { copyOf, useDraft } from '@/lib/draft'
import { useForm } from '@/parts/form'
import ClashBox from '@/parts/ClashBox.vue'
import ColourBox from '@/parts/fields/ColourBox.vue'
import RichBox from '@/parts/fields/RichBox.vue'
import { runsToHtml } from '@/parts/fields/runs'
import { useNotices } from '@/lib/notices'
import ActIcon from '@/parts/ActIcon.vue'
import { HANDLES, ICONS, KINDS, LINK_SLOTS, ticked, WITH_TEXT } from './channels'
import ChannelMet from './ChannelMet.vue'
import ChannelPeople from './ChannelPeople.vue'
import ChannelPrinted from './ChannelPrinted.vue'

/** One channel: where it leads, who is behind it, when, and how visitors meet it in every situation. */
const props = defineProps<{ channel: Channel; sets: HoursSet[] }>()
const emit = defineEmits<{ changed: []; dropped: [] }>()
const notices = useNotices()
const { error, fields, busy, run, clear } = useForm()
const { draft, base, changed, elsewhere, afresh, kept } = useDraft(() => props.channel.document)
const wrong = (place: string) => fields.value[`document.${place}`]

/** Saves what was made from `based_on`; what others have changed since stays. */
async function put(document: ChannelDocument, based_on: ChannelDocument, all_the_same = false) {
  const sent = copyOf(document)
  const saved = await saveChannel(props.channel.id, { document: sent, based_on, all_the_same })
  kept(sent, saved.document)
  emit('changed')
}
async function keep(allTheSame = false) {
  const [now, was] = [draft.value, base.value]
  await put(now, was, allTheSame)
  notices.say('Saved. Visitors get it within a second.', {
    about: `channel ${props.channel.id}`,
    undo: () => put(was, now),
  })
}
/** What stands there, in place of what is not saved. */
function take() {
  afresh()
  clear()
  emit('changed')
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
function device(name: 'desktop' | 'phone', on: boolean) {
  const kept = (['desktop', 'phone'] as const).filter((one) =>
    one === name ? on : draft.value.devices.includes(one),
  )
  if (kept.length) draft.value.devices = kept
}
const qr = ref('')
async function showCode() {
  qr.value = qr.value ? '' : await qrOf(props.channel.on_a_phone || props.channel.short)
}
</script>

<template>
  <section class="grid gap-5" :aria-label="channel.document.label">
    <form class="sheet grid gap-3 p-5" novalidate @submit.prevent="run(() => keep())">
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
        <img
          class="size-32 shrink-0 bg-sheet p-1"
          :src="`data:image/svg+xml,${encodeURIComponent(qr)}`"
          alt="The link as a QR code"
        />
        <p class="text-sm text-ink-2">
          Point a phone at it: it opens <code class="break-all">{{ channel.on_a_phone }}</code>
        </p>
      </div>
      <div class="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
        <label class="grid content-start text-sm text-ink-2"
          >What visitors read<input
            v-model="draft.label"
            class="input"
            maxlength="60"
            :aria-invalid="!!wrong('label')"
          /><span v-if="wrong('label')" class="font-semibold text-rust">{{ wrong('label') }}</span></label
        >
        <label class="grid content-start text-sm text-ink-2"
          >{{ HANDLES[draft.kind]?.[0]
          }}<input
            v-model="draft.handle"
            class="input"
            :placeholder="HANDLES[draft.kind]?.[1]"
            :aria-invalid="!!wrong('handle')"
          /><span v-if="wrong('handle')" class="font-semibold text-rust">{{ wrong('handle') }}</span></label
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
          <RichBox
            label="Subject"
            plain
            :html="runsToHtml(draft.subject)"
            :slots="LINK_SLOTS"
            @runs="draft.subject = $event"
          />
        </template>
        <p class="text-sm text-ink-2">First words, which they can change before they send them</p>
        <RichBox
          label="First words"
          plain
          :html="runsToHtml(draft.text)"
          :slots="LINK_SLOTS"
          @runs="draft.text = $event"
        />
      </div>
      <ChannelPeople v-model="draft" :sets="sets" :wrong="wrong" />
      <div class="flex flex-wrap items-end gap-x-5 gap-y-2">
        <fieldset class="flex flex-wrap gap-x-3">
          <legend class="text-sm text-ink-2">
            Open in the hours of{{ draft.hours.length > 1 ? ' any of' : '' }}
          </legend>
          <label v-for="(set, at) in sets" :key="set.id" class="flex items-center gap-1"
            ><input
              type="checkbox"
              :checked="draft.hours.includes(set.id)"
              @change="draft.hours = ticked(draft.hours, set.id)"
            />
            {{ set.name
            }}{{
              at === 0 && !draft.hours.length && !['map', 'page'].includes(draft.kind)
                ? ' (unless another is ticked)'
                : ''
            }}</label
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
            <option v-if="WITH_TEXT.includes(draft.kind)" value="ask-first">
              asks for their words first
            </option>
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
        <label class="flex items-center gap-1"
          ><input v-model="draft.goal" type="checkbox" /> a click reaches the goal</label
        >
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
          <ColourBox
            label="Colour of the icon"
            :value="draft.colour ?? '#0e4f57'"
            @set="draft.colour = $event"
          />
          <button v-if="draft.colour" type="button" class="btn-link" @click="draft.colour = null">
            the house style’s
          </button></span
        >
      </div>
      <ClashBox :error="error" @mine="run(() => keep(true))" @theirs="take">
        <p v-if="error" class="font-semibold text-rust" role="alert">
          {{ fields.document ?? Object.values(fields)[0] ?? error.message }}
        </p>
      </ClashBox>
      <span class="flex flex-wrap items-center gap-3">
        <button class="btn btn-main" :disabled="busy || !changed">Save the channel</button>
        <button v-if="changed" type="button" class="btn" @click="take">Put back</button>
        <span v-if="changed" class="text-brass">not saved yet</span>
        <span v-if="elsewhere" class="text-sm text-ink-2"
          >Somebody else has saved it meanwhile; yours is put together with that.</span
        >
      </span>
    </form>

    <ChannelMet :channel="channel" :draft="draft" />

    <ChannelPrinted :channel="channel" />
  </section>
</template>
