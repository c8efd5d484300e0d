<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bringChannelBack, orderChannels, useChannels, type Channel } from '@/api/channels'
import { useHours } from '@/api/hours'
import { useClock } from '@/lib/clock'
import { moved } from '@/lib/sort'
import { useNotices } from '@/lib/notices'
import ActIcon from '@/parts/ActIcon.vue'
import { useMay } from '@/api/me'
import ErrorBox from '@/parts/ErrorBox.vue'
import ChannelForm from './ChannelForm.vue'
import GatewaysCard from './GatewaysCard.vue'
import NewChannel from './NewChannel.vue'
import { KINDS } from './channels'

/** The ways to reach the business, each with today as a line, and the chosen one as visitors meet it. */
const { data: day, error, refetch } = useChannels()
const { data: hours } = useHours()
const { now } = useClock()
const [route, router] = [useRoute(), useRouter()]
const queries = useQueryClient()
const may = useMay()
const notices = useNotices()
const fresh = () => queries.invalidateQueries()
const making = computed(() => route.params.id === 'new' || (!!day.value && !day.value.channels.length))
const chosen = computed(
  () =>
    day.value?.channels.find((one) => String(one.id) === route.params.id) ??
    (making.value ? null : day.value?.channels[0]),
)
const choose = (id: number | 'new') => router.push(`/hours/channels/${id}`)

function place(at: string | Date): number {
  const start = Date.parse(day.value?.start ?? '')
  return (100 * (new Date(at).getTime() - start)) / (Date.parse(day.value?.end ?? '') - start)
}
const WORDS: Record<string, string> = {
  open: 'reachable',
  'nobody-free': 'nobody free',
  'after-hours': 'closed',
  holiday: 'holiday',
}
const about = (one: Channel) =>
  [
    KINDS[one.document.kind],
    one.document.people.map((who) => who.name).join(', ') || one.document.handle,
    one.document.devices.length === 1 ? `${one.document.devices[0]}s only` : '',
  ]
    .filter(Boolean)
    .join(' · ')
async function move(at: number, by: number) {
  const ids = (day.value?.channels ?? []).map((one) => one.id)
  const to = at + by
  if (to < 0 || to >= ids.length) return
  await orderChannels(moved(ids, at, to))
  await fresh()
}
function dropped(one: Channel) {
  void fresh()
  void router.push('/hours/channels')
  notices.say(`“${one.document.label}” is deleted. Visitors no longer see it.`, {
    undo: () => bringChannelBack(one.id),
  })
}
</script>

<template>
  <div>
    <ErrorBox :error="error" :again="() => refetch()" />
    <div v-if="!day && !error" class="sheet h-96 opacity-60" aria-busy="true" />
    <div
      v-if="day"
      class="grid grid-cols-[minmax(0,35rem)_minmax(0,1fr)] items-start gap-6 max-lg:grid-cols-1"
    >
      <section aria-label="Channels">
        <ul class="grid grid-cols-1 gap-2">
          <li
            v-for="(one, at) in day.channels"
            :key="one.id"
            class="sheet relative flex items-center gap-3 p-2.5"
            :class="{
              '!border-petrol shadow-[inset_4px_0_0_var(--color-petrol)]': chosen?.id === one.id && !making,
            }"
          >
            <span
              class="grid size-9 shrink-0 place-items-center rounded-full border border-petrol text-petrol"
              ><ActIcon :icon="one.document.icon"
            /></span>
            <div class="min-w-0 flex-1">
              <button
                type="button"
                class="block max-w-full truncate text-left font-semibold after:absolute after:inset-0"
                :aria-pressed="chosen?.id === one.id"
                @click="choose(one.id)"
                @keydown.alt.down.prevent="may('hours') && move(at, 1)"
                @keydown.alt.up.prevent="may('hours') && move(at, -1)"
              >
                {{ one.document.label }}
              </button>
              <span class="block truncate text-sm text-ink-2">{{ about(one) }}</span>
            </div>
            <div
              class="hatch relative h-4 w-32 shrink-0 rounded border border-line max-md:hidden"
              role="img"
              :aria-label="`Today: ${one.always ? 'always' : one.today.length ? 'reached in the solid times' : 'nobody is reached'}`"
            >
              <span
                v-for="piece in one.today"
                :key="piece.start"
                class="absolute inset-y-0 border-x-2 border-petrol bg-petrol-tint"
                :style="{
                  left: `${place(piece.start)}%`,
                  width: `${place(piece.end) - place(piece.start)}%`,
                }"
              />
              <span class="absolute -inset-y-0.5 w-0.5 bg-rust" :style="{ left: `${place(now)}%` }" />
            </div>
            <span
              class="w-20 shrink-0 text-sm font-semibold"
              :class="
                one.reachable ? 'text-moss' : one.situation === 'nobody-free' ? 'text-brass' : 'text-ink-2'
              "
              >{{ one.always ? 'always' : WORDS[one.situation] }}</span
            >
            <span v-if="may('hours')" class="relative z-10 flex gap-0.5">
              <button
                type="button"
                class="btn px-1.5!"
                :disabled="at === 0"
                :aria-label="`Move ${one.document.label} up`"
                @click="move(at, -1)"
              >
                ↑
              </button>
              <button
                type="button"
                class="btn px-1.5!"
                :disabled="at === day.channels.length - 1"
                :aria-label="`Move ${one.document.label} down`"
                @click="move(at, 1)"
              >
                ↓
              </button>
            </span>
          </li>
        </ul>
        <button
          v-if="day.channels.length && may('hours')"
          type="button"
          class="btn btn-main mt-3"
          @click="choose('new')"
        >
          + Channel
        </button>
        <p v-if="day.channels.length" class="mt-3 text-sm text-ink-2">
          The line beside each is today: solid is when somebody can be reached through it. Visitors see them
          in this order.
        </p>
        <GatewaysCard v-if="may('business')" />
      </section>
      <NewChannel
        v-if="making && may('hours')"
        :first="!day.channels.length"
        @made="fresh().then(() => choose($event))"
        @close="router.push('/hours/channels')"
      />
      <fieldset v-else-if="chosen && hours" class="contents" :disabled="!may('hours')">
        <ChannelForm
          :key="chosen.id"
          :channel="chosen"
          :sets="[hours.main, ...hours.others]"
          @changed="fresh"
          @dropped="dropped(chosen)"
        />
      </fieldset>
    </div>
  </div>
</template>
