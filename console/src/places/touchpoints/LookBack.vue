<script setup lang="ts">
import { vTyped } from '@/lib/typed'
import { DialogTitle } from '@headlessui/vue'
import { onMounted, ref, watch } from 'vue'
import { nameRevision, revision, revisions, type Revision, type RevisionSeen } from '@/api/touchpoints'
import { useClock } from '@/lib/clock'
import { saidTime } from '@/lib/time'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useForm } from '@/parts/form'
import StageFrame from './StageFrame.vue'
import DialogBox from '@/parts/DialogBox.vue'

const props = defineProps<{ id: number; name: string }>()
const emit = defineEmits<{ close: []; back: [number: number] }>()
const { zone, now } = useClock()
const { error, run } = useForm()
const all = ref<Revision[]>([])
const chosen = ref<number | null>(null)
const seen = ref<RevisionSeen | null>(null)
onMounted(() =>
  run(async () => {
    all.value = await revisions(props.id)
    chosen.value = all.value[0]?.number ?? null
  }),
)
watch(
  chosen,
  (number) => number !== null && run(async () => void (seen.value = await revision(props.id, number))),
)
const call = (one: Revision, event: Event) =>
  run(
    async () =>
      void (all.value = await nameRevision(props.id, one.number, (event.target as HTMLInputElement).value)),
  )
const said = (one: Revision) => one.name || `Version ${one.number}`
function keys(event: KeyboardEvent, at: number) {
  const way = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  const next = way === undefined ? undefined : all.value[at + way]
  if (!next) return
  event.preventDefault()
  chosen.value = next.number
  const list = (event.currentTarget as HTMLElement).closest('ol')
  list?.querySelectorAll('button')[at + (way ?? 0)]?.focus()
}
</script>

<template>
  <DialogBox full @close="emit('close')">
    <header class="flex items-center gap-3 border-b border-line px-5 py-3">
      <DialogTitle as="h2">Look back: {{ name }}</DialogTitle>
      <button type="button" class="btn ml-auto" @click="emit('close')">Close</button>
    </header>
    <ErrorBox :error="error" class="m-3" />
    <div class="flex min-h-0 flex-1">
      <ol
        class="w-72 shrink-0 overflow-auto border-r border-line p-2"
        aria-label="Versions, the newest first"
      >
        <li v-for="(one, at) in all" :key="one.number">
          <button
            type="button"
            class="w-full rounded-md px-3 py-1.5 text-left"
            :class="chosen === one.number ? 'bg-petrol-tint' : 'hover:bg-petrol-wash'"
            :aria-pressed="chosen === one.number"
            @click="chosen = one.number"
            @keydown="keys($event, at)"
          >
            <span class="flex items-baseline justify-between gap-2">
              <strong class="truncate">{{ said(one) }}</strong>
              <span v-if="one.is_live" class="shrink-0 text-sm font-semibold text-moss">● live</span>
              <span v-else-if="one.is_draft" class="shrink-0 text-sm font-semibold text-petrol">now</span>
            </span>
            <span class="block text-sm text-ink-2"
              >{{ saidTime(one.saved_at, now, zone)
              }}<template v-if="one.saved_by"> · {{ one.saved_by }}</template></span
            >
          </button>
        </li>
      </ol>
      <section v-if="seen" class="flex min-w-0 flex-1 flex-col" aria-label="How it was">
        <div class="flex min-h-0 flex-1 gap-3 bg-line-2 p-3">
          <StageFrame
            class="flex-[2.4]"
            :document="seen.seen"
            :step="seen.seen.steps[0]?.id ?? ''"
            :width="1000"
            :height="700"
            title="Desktop then"
          />
          <StageFrame
            class="flex-1"
            :document="seen.seen"
            :step="seen.seen.steps[0]?.id ?? ''"
            :width="375"
            :height="700"
            title="Phone then"
          />
        </div>
        <footer class="grid gap-2 border-t border-line px-5 py-3">
          <span class="flex items-center gap-3">
            <label class="text-sm text-ink-2" for="version-name">Name of this version</label>
            <input
              id="version-name"
              :key="seen.number"
              v-typed="seen.name"
              class="input w-64!"
              maxlength="80"
              placeholder="to find it by"
              @change="call(seen, $event)"
            />
            <button
              v-if="!seen.is_draft"
              type="button"
              class="btn btn-main ml-auto"
              @click="emit('back', seen.number)"
            >
              Go back to this one
            </button>
            <span v-else class="ml-auto text-ink-2">This is how it is now.</span>
          </span>
          <p v-if="seen.changes.length" class="max-h-16 overflow-auto text-sm text-ink-2">
            Since then: {{ seen.changes.map((one) => one.words).join(' · ') }}
          </p>
        </footer>
      </section>
    </div>
  </DialogBox>
</template>
