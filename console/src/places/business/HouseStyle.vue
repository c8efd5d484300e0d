<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { upload } from '@/api/library'
import { setHouse, type Site } from '@/api/sites'
import ErrorBox from '@/parts/ErrorBox.vue'
import { useForm } from '@/parts/form'
import { copyOf, useDraft } from '@/lib/draft'
import { useNotices } from '@/lib/notices'
import ClashBox from '@/parts/ClashBox.vue'
import ColourBox from '@/parts/fields/ColourBox.vue'
import FontChoice from '@/parts/fields/FontChoice.vue'
import LibraryButton from '@/parts/fields/LibraryButton.vue'
import NumberBox from '@/parts/fields/NumberBox.vue'
import { COLOURS } from '@/places/touchpoints/look'

type House = Required<Site['house']>
const props = defineProps<{ site: Site }>()
const EMPTY: House = { font: null, head_font: null, corners: null, colours: {}, logo: null }
const ROLES = ['card', 'text', 'headline', 'button', 'button_text'] as const
const found = ref<House | null>(null)
const waiting = ref(false)
const queries = useQueryClient()
const notices = useNotices()
const { error, busy, run, clear } = useForm()
const {
  draft: house,
  base,
  changed,
  afresh,
  kept,
} = useDraft<House>(() => ({ ...EMPTY, ...props.site.house }))
const address = computed(() => (props.site.seen ? `${props.site.seen.url}` : ''))

/** The site's own page opens and tells, in this browser, what it looks like. */
function look() {
  found.value = null
  waiting.value = true
  window.open(
    `${address.value}#intavo_style_${btoa(location.origin).replace(/=+$/, '').replace(/\+/g, '-').replace(/\//g, '_')}`,
    '_blank',
    'width=1100,height=800',
  )
}
useEventListener(window, 'message', (event: MessageEvent<{ intavo?: string; style?: House }>) => {
  const { data } = event
  if (!waiting.value || data?.intavo !== 'style' || !data.style || !address.value.startsWith(event.origin))
    return
  waiting.value = false
  found.value = { ...EMPTY, ...data.style }
})
async function takeIt() {
  if (!found.value) return
  const { logo, ...style } = found.value
  let asset = house.value.logo
  if (logo?.startsWith('data:')) {
    const bytes = Uint8Array.from(atob(logo.split(',')[1] ?? ''), (letter) => letter.charCodeAt(0))
    const blob = new Blob([bytes], { type: 'image/png' })
    asset = (
      await upload(
        new File([blob], `logo of ${props.site.name}.png`, { type: 'image/png' }),
        'picture',
        `Logo of ${props.site.name}`,
      )
    ).public_id
  }
  house.value = { ...style, logo: asset }
  found.value = null
  await save()
}
/** Saves what was made from `base`; what others have changed since stays. */
async function save(all_the_same = false) {
  const sent = copyOf(house.value)
  await setHouse(props.site.id, { house: sent, based_on: base.value, all_the_same })
  await queries.invalidateQueries()
  await nextTick()
  kept(sent)
  notices.say('The touchpoints of this site follow it within a second.')
}
const swatches = (one: House) =>
  Object.entries(one.colours).filter((pair): pair is [string, string] => !!pair[1])
</script>

<template>
  <section class="mt-5 border-t border-line pt-4" :aria-label="`House style of ${site.name}`">
    <h3 class="font-body! text-base!">House style</h3>
    <p class="mb-2 text-ink-2">Fonts, colours, corners and logo that the touchpoints of this site follow.</p>
    <div class="mb-3 flex flex-wrap items-center gap-2">
      <button type="button" class="btn" :disabled="!address" @click="look">Read it from the site</button>
      <span v-if="!address" class="text-ink-2">The script has to be seen on the site first.</span>
      <span v-else-if="waiting" class="text-ink-2" role="status"
        >Your site opens in a window and tells its look. Close it afterwards.</span
      >
    </div>
    <div v-if="found" class="mb-3 rounded-md border border-petrol bg-petrol-wash p-3" role="status">
      <p class="mb-2 font-semibold">This is what your site looks like. Take it?</p>
      <p class="flex flex-wrap items-center gap-3">
        <span v-for="[role, colour] in swatches(found)" :key="role" class="flex items-center gap-1 text-sm"
          ><span class="inline-block size-5 rounded border border-line" :style="{ background: colour }" />{{
            COLOURS[role as keyof typeof COLOURS] ?? role
          }}</span
        >
        <span v-if="found.font" class="text-sm">Text in {{ found.font.name }}</span>
        <span v-if="found.head_font" class="text-sm">headlines in {{ found.head_font.name }}</span>
        <span v-if="found.corners !== null" class="text-sm">corners of {{ found.corners }} px</span>
        <img v-if="found.logo" :src="found.logo" alt="Logo" class="max-h-10 max-w-40" />
      </p>
      <span class="mt-3 flex gap-2"
        ><button type="button" class="btn btn-main" :disabled="busy" @click="run(takeIt)">Take it</button
        ><button type="button" class="btn" @click="found = null">No</button></span
      >
    </div>
    <div
      class="grid max-w-xl grid-cols-[8rem_minmax(0,1fr)] items-center gap-2 max-sm:grid-cols-[6rem_minmax(0,1fr)]"
    >
      <template v-for="role in ROLES" :key="role">
        <span class="text-ink-2">{{ COLOURS[role] }}</span>
        <span class="flex flex-wrap items-center gap-2">
          <ColourBox
            :label="`${COLOURS[role]} of the house style`"
            :value="house.colours[role] ?? null"
            @set="house.colours[role] = $event"
          />
          <button
            v-if="house.colours[role]"
            type="button"
            class="btn-link"
            @click="house.colours[role] = null"
          >
            leave open
          </button>
        </span>
      </template>
      <span class="text-ink-2">Text</span
      ><FontChoice open label="Font of text" :font="house.font" @set="house.font = $event" />
      <span class="text-ink-2">Headlines</span
      ><FontChoice open label="Font of headlines" :font="house.head_font" @set="house.head_font = $event" />
      <span class="text-ink-2">Corners</span
      ><span
        ><NumberBox
          label="Corners of the house style"
          :value="house.corners"
          :least="0"
          :most="60"
          empty="open"
          @set="house.corners = $event"
        />
        px</span
      >
      <span class="text-ink-2">Logo</span
      ><LibraryButton kind="picture" label="" :value="house.logo" @set="house.logo = $event" />
    </div>
    <ClashBox :error="error" @mine="run(() => save(true))" @theirs="(afresh(), clear())">
      <ErrorBox :error="error" class="mt-2" />
    </ClashBox>
    <button type="button" class="btn mt-3" :disabled="busy || !changed" @click="run(() => save())">
      Keep the house style
    </button>
  </section>
</template>
