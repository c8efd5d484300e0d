<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { saidTime } from '@/lib/time'
import { OUTCOMES, type Outcome } from '@/lib/names'

/** An entry of the timeline; a receipt where it went out. */
type Entry = Schemas['CardEventOut'] & { receipt?: string }
const props = defineProps<{ events: Entry[]; zone: string; now: Date; answers?: boolean }>()
/** An invitation is answered, where that can be done. */
const emit = defineEmits<{ answer: [event: number, says: Says] }>()
type Says = Schemas['InvitationIn']['says']
const SAYS: [Says, string][] = [
  ['accepted', 'Accept'],
  ['tentative', 'Perhaps'],
  ['declined', 'Decline'],
]

interface Invitation {
  method: string
  summary: string
  start: string | null
  end: string | null
  location: string
  organizer: string
  answer_to?: string
}
interface Data {
  touchpoint?: string
  page?: string
  typed?: [string, string][]
  agreed?: string[]
  told?: string
  tags?: string[]
  confirmed?: string
  text?: string
  until?: string
  outcome?: Outcome
  way?: string
  through?: string
  reason?: string
  to?: string
  quoted?: string
  subject?: string
  from?: string
  perhaps_from?: string
  sent_on_by?: string
  invitation?: Invitation
  enclosed?: { enclosure?: number; href?: string; name: string; size: number }[]
  files?: { id: number; name: string; size: number; risky: boolean; picture?: boolean }[]
  address?: string
  permanent?: boolean
  withdrawn?: number
  name?: string
  file?: string
}
const data = (event: Entry) => event.data as Data
const WORDS: Record<string, (data: Data) => string> = {
  'signed up': () => 'Signed up through',
  asked: () => 'Asked through',
  'asked for a call': () => 'Asked for a call through',
  'gave a score': () => 'Gave a score through',
  replied: () => 'Answered through',
  answered: (found) => (found.way === 'talk' ? 'Answered in the conversation' : 'Answered by mail'),
  message: () => 'Began a conversation through',
  'not delivered': (found) =>
    `Could not be delivered${found.through ? ` through ${found.through}` : ''}: ${found.reason ?? ''}`,
  'wrote by mail': (found) =>
    [
      `Wrote by mail${found.from ? ` from another address, ${found.from}` : ''}`,
      found.perhaps_from
        ? `perhaps not from ${found.perhaps_from}: the mail host could not confirm that it is`
        : '',
      found.through ? `through ${found.through}` : '',
      found.sent_on_by ? `sent on by ${found.sent_on_by}` : '',
    ]
      .filter(Boolean)
      .join(', '),
  'answered by itself': () => 'An automatic reply came, which changes nothing',
  'mail came back': (found) =>
    found.permanent
      ? `Our mail to ${found.address} came back: there is no such address`
      : `Our mail to ${found.address} could not be delivered yet`,
  complained: (found) =>
    `${found.address} called our mail spam: nothing is mailed there any more${found.withdrawn ? ', and what was agreed is withdrawn' : ''}`,
  noted: (found) => (found.from ? `Note by mail from ${found.from}, for us alone` : 'Note, for us alone'),
  given: (found) => (found.to ? `Given to ${found.to}` : 'Given back to everybody'),
  waiting: (found) =>
    `Now it is their turn${found.until ? `; without a word of theirs it is ours again ${saidTime(found.until, props.now, props.zone)}` : ''}`,
  'put off': (found) =>
    `Put off until ${found.until ? saidTime(found.until, props.now, props.zone) : 'later'}`,
  finished: (found) => `Finished: ${found.outcome ? OUTCOMES[found.outcome].toLowerCase() : ''}`,
  'taken up': () => 'Taken up again',
  'moved the call': (found) =>
    `Moved the call to ${found.until ? saidTime(found.until, props.now, props.zone) : 'another time'}`,
  'cancelled the call': () => 'Cancelled the call',
  joined: (found) => `Joined with the card of ${found.name || 'somebody without a name'}`,
  changed: () => 'The card was changed',
  imported: (found) => `Brought in with ${found.file ?? 'a file'}`,
  added: () => 'Put on the list by hand',
}
const ASKED: Record<string, string> = { CANCEL: 'Calls off', REPLY: 'Answers the invitation to' }
const asks = (asked?: Invitation) => !!asked?.answer_to && ['REQUEST', ''].includes(asked.method)
const invited = (asked: Invitation) =>
  [
    `${ASKED[asked.method] ?? 'Invites to'} “${asked.summary || 'something without a name'}”`,
    asked.start ? saidTime(asked.start, props.now, props.zone) : '',
    asked.location,
    asked.organizer ? `asked by ${asked.organizer}` : '',
  ]
    .filter(Boolean)
    .join(' · ')
const saidSize = (bytes: number) =>
  bytes < 1024 * 1024
    ? `${Math.max(1, Math.round(bytes / 1024))} KB`
    : `${(bytes / 1024 / 1024).toFixed(1)} MB`
function path(url: string | undefined): string {
  try {
    return url ? new URL(url).pathname : ''
  } catch {
    return url ?? ''
  }
}
</script>

<template>
  <ol class="grid content-start gap-2.5">
    <li
      v-for="event in events"
      :key="event.id"
      class="grid grid-cols-[8.5rem_minmax(0,1fr)] gap-3 max-md:grid-cols-1 max-md:gap-0"
    >
      <time class="text-sm text-ink-2" :datetime="event.at">{{ saidTime(event.at, now, zone) }}</time>
      <div class="min-w-0">
        <p>
          {{ WORDS[event.kind]?.(data(event)) ?? event.kind }}
          <template v-if="data(event).touchpoint"
            ><strong>{{ data(event).touchpoint }}</strong> on {{ path(data(event).page) }}</template
          >
          <span v-if="event.by" class="text-ink-2"> · {{ event.by }}</span>
          <span v-if="event.receipt" class="text-ink-2"> · {{ event.receipt }}</span>
        </p>
        <p v-if="data(event).subject" class="mt-1 font-semibold break-words" dir="auto">
          {{ data(event).subject }}
        </p>
        <p v-if="data(event).invitation" class="mt-1 text-petrol" dir="auto">
          {{ invited(data(event).invitation!) }}
        </p>
        <p v-if="answers && asks(data(event).invitation)" class="mt-1 flex flex-wrap gap-2">
          <button
            v-for="[says, words] in SAYS"
            :key="says"
            type="button"
            class="btn"
            @click="emit('answer', event.id, says)"
          >
            {{ words }}
          </button>
        </p>
        <p
          v-if="data(event).text"
          class="mt-1 rounded-md px-3 py-2 whitespace-pre-wrap"
          :class="event.kind === 'noted' ? 'bg-brass-tint' : 'bg-petrol-wash'"
          dir="auto"
        >
          {{ data(event).text }}
        </p>
        <details v-if="data(event).quoted" class="mt-1 text-sm text-ink-2">
          <summary class="cursor-pointer">what it answers</summary>
          <p class="mt-1 border-l-2 border-line pl-3 whitespace-pre-wrap" dir="auto">
            {{ data(event).quoted }}
          </p>
        </details>
        <ul v-if="data(event).files?.length" class="mt-1 grid gap-1 text-sm" aria-label="Attached">
          <li v-for="file in data(event).files" :key="file.id">
            <img
              v-if="file.picture"
              :src="`/api/mail-files/${file.id}`"
              :alt="file.name"
              loading="lazy"
              class="mb-1 max-h-60 max-w-full rounded border border-line-2"
            />
            <a class="btn-link" :href="`/api/mail-files/${file.id}`" download>{{ file.name }}</a>
            <span class="text-ink-2"> · {{ saidSize(file.size) }}</span>
            <span v-if="file.risky" class="text-rust">
              · ▲ can run something: open it only if you expected it</span
            >
          </li>
        </ul>
        <ul v-if="data(event).enclosed?.length" class="mt-1 grid gap-1 text-sm" aria-label="Sent along">
          <li v-for="file in data(event).enclosed" :key="file.href ?? file.enclosure">
            <a class="btn-link" :href="file.href ?? `/api/enclosures/${file.enclosure}`" download>{{
              file.name
            }}</a>
            <span class="text-ink-2"> · {{ saidSize(file.size) }}</span>
          </li>
        </ul>
        <dl v-if="data(event).typed?.length" class="mt-1 grid gap-1 rounded-md bg-fog px-3 py-2">
          <div v-for="[label, value] in data(event).typed" :key="label">
            <dt class="text-xs text-ink-2">{{ label }}</dt>
            <dd class="break-words whitespace-pre-wrap" dir="auto">{{ value }}</dd>
          </div>
        </dl>
        <p v-for="wording in data(event).agreed" :key="wording" class="mt-1 text-sm text-ink-2">
          Ticked “{{ wording }}”
        </p>
        <p v-if="data(event).tags?.length" class="mt-1 text-sm text-ink-2">
          Tagged {{ data(event).tags?.join(', ') }}
        </p>
        <p v-if="data(event).confirmed" class="mt-1 text-sm text-ink-2">
          Confirmed by mail {{ saidTime(data(event).confirmed ?? '', now, zone) }}
        </p>
        <p v-if="data(event).told" class="mt-1 text-sm text-ink-2">Was told: “{{ data(event).told }}”</p>
      </div>
    </li>
  </ol>
</template>
