<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { PageMap } from '@/api/rehearsals'
import type { Summary } from '@/api/touchpoints'
import { saidCount } from '@/lib/time'
import { vTyped } from '@/lib/typed'
import MapCell from './MapCell.vue'
import RowMenu from './RowMenu.vue'
import { calledWhat, stateOf } from './rows'

/** A touchpoint of the list: its state, where it shows, and what came of it. */
const props = defineProps<{
  row: Summary
  /** Null while it is worked out what shows where. */
  columns: PageMap['columns'] | null
  mapped: PageMap['rows'][number] | undefined
  grip: boolean
  openAt: number | null
  rehearsal: object
}>()
const emit = defineEmits<{
  keys: [event: KeyboardEvent]
  open: [at: number]
  rename: [name: string]
  flip: []
  copy: []
  remove: []
}>()
const state = computed(() => stateOf(props.row))
const naming = ref(false)
const box = useTemplateRef<HTMLInputElement>('box')
const percent = (rate: number) => `${(100 * rate).toFixed(1)} %`
async function startNaming() {
  naming.value = true
  await nextTick()
  box.value?.select()
}
function renamed(event: Event) {
  naming.value = false
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== props.row.name) emit('rename', name)
}
</script>

<template>
  <!-- As high with a word below a cell as without, so that no row moves when it is known what shows where. -->
  <tr class="h-16 [&:last-child>td]:border-0">
    <td class="border-b border-line-2 px-3 py-2.5" :class="{ hatch: row.state !== 'live' }">
      <span class="inline-flex items-center gap-2 rounded pr-2" :class="{ 'bg-sheet': row.state !== 'live' }">
        <span v-if="grip" data-grip class="cursor-grab text-ink-3" aria-hidden="true">⠿</span>
        <span>
          <input
            v-if="naming"
            ref="box"
            v-typed="row.name"
            class="input"
            :aria-label="`Name of ${row.name}`"
            maxlength="120"
            @change="renamed"
            @blur="naming = false"
            @keydown.esc="naming = false"
          />
          <RouterLink
            v-else
            :data-name="row.id"
            :to="`/touchpoints/${row.id}`"
            class="font-bold text-ink hover:underline"
            @keydown="emit('keys', $event)"
            >{{ row.name }}</RouterLink
          >
          <span class="block text-sm text-ink-2">{{ calledWhat(row) }}</span>
        </span>
      </span>
    </td>
    <td class="border-b border-line-2 px-3 py-2.5 font-semibold">
      <span :class="state[2]"
        ><span aria-hidden="true">{{ state[0] }}</span> {{ state[1] }}</span
      >
      <span v-if="row.changed_since_live" class="block text-sm font-semibold text-brass">{{
        row.state === 'live' ? 'changed since it went live' : 'changed since it was on'
      }}</span>
    </td>
    <td
      v-for="(one, index) in mapped?.cells ?? []"
      :key="index"
      class="border-b border-l border-line-2 px-1 py-2 text-center align-middle"
    >
      <MapCell
        :cell="one"
        :label="`${row.name} on ${columns?.[index]?.label}`"
        :chosen="openAt === index"
        @open="emit('open', index)"
      />
    </td>
    <td
      v-if="columns && !mapped"
      :colspan="columns.length"
      class="border-b border-l border-line-2 px-3 py-2 text-sm text-ink-2"
    >
      {{ row.sites.length ? `stands on ${row.sites.map((one) => one.name).join(', ')}` : 'on no site' }}
    </td>
    <td class="border-b border-l border-line-2 px-3 py-2.5 text-right tabular-nums">
      {{ columns ? saidCount(mapped?.seen ?? 0) : '…' }}
    </td>
    <td class="border-b border-line-2 px-3 py-2.5 text-right tabular-nums">
      {{ !columns ? '…' : mapped?.rate == null ? 'no rate' : percent(mapped?.rate ?? 0) }}
    </td>
    <td class="sticky right-0 has-[[aria-expanded=true]]:z-20 border-b border-line-2 bg-sheet px-3 py-2.5">
      <span class="flex justify-end gap-2">
        <button
          type="button"
          class="btn"
          :aria-label="`Turn ${row.state === 'live' ? 'off' : 'on'} ${row.name}`"
          @click="emit('flip')"
        >
          {{ row.state === 'live' ? 'Turn off' : 'Turn on' }}
        </button>
        <RowMenu
          :row="row"
          :rehearsal="rehearsal"
          @rename="startNaming"
          @copy="emit('copy')"
          @remove="emit('remove')"
        />
      </span>
    </td>
  </tr>
</template>
