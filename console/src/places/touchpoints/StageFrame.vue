<script setup lang="ts">
import { useDebounceFn, useElementSize } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { draw as drawTouchpoint, learn, type Drawing, type Extras, type SeenDocument } from '@visitor/render'
import { MORE } from '@visitor/more'
import { makeEditable, PAGE_CSS, STAGE_CSS } from './stage'

const props = defineProps<{
  document: SeenDocument
  step: string
  width: number
  height: number
  title: string
  editable?: boolean
  selected?: string | null
  firstName?: string
  extras?: Extras | undefined
}>()
const emit = defineEmits<{
  edit: [part: string, words: string, value: string]
  select: [part: string]
  box: [width: number, height: number]
}>()
learn(MORE)

const frame = ref<HTMLIFrameElement>()
const holder = ref<HTMLElement>()
const { width: room, height: tall } = useElementSize(holder)
const scale = computed(() => Math.min(room.value / props.width, tall.value / props.height) || 0.001)
let drawing: Drawing | null = null
let ready = false

const NOTHING = { kind: 'kept' } as const
const nothing = () => undefined
const stay = {
  send: () => Promise.resolve(NOTHING),
  offer: () => undefined,
  close: nothing,
  started: nothing,
  clicked: nothing,
  goal: nothing,
  more: () => Promise.resolve(),
  open: nothing,
  post: () => Promise.reject(new Error('nothing is sent from here')),
  extras: () => Promise.resolve(props.extras ?? {}),
}
const around = () => ({
  base: '',
  firstName: props.firstName ?? '',
  now: () => Date.now(),
  typed: null,
  keep: nothing,
  memo: () => null,
  ways: () => props.extras?.channels ?? {},
  entry: { id: '', revision: 0 },
})

function typing(): boolean {
  return drawing?.root.activeElement?.hasAttribute('contenteditable') ?? false
}

/** The visitor's own code draws what they will see; only the words are made editable here. */
function draw() {
  const page = frame.value?.contentDocument
  if (!ready || !page) return
  drawing?.remove()
  const seen = JSON.parse(JSON.stringify(props.document)) as SeenDocument
  drawing = drawTouchpoint(page, seen, 'stage', stay, around())
  if (seen.steps.some((one) => one.id === props.step)) drawing.draw(props.step)
  const Sheet = (page.defaultView ?? window).CSSStyleSheet
  const sheet = new Sheet()
  sheet.replaceSync(STAGE_CSS)
  drawing.root.adoptedStyleSheets = [...drawing.root.adoptedStyleSheets, sheet]
  if (props.editable) {
    makeEditable(drawing, {
      edit: (part, words, value) => emit('edit', part, words, value),
      select: (part) => emit('select', part),
      // Not when the caret only went on to other words of this frame.
      left: () => void setTimeout(() => typing() || draw()),
    })
  }
  const where = seen.stance === 'in-page' ? (page.querySelector('section') ?? page.body) : page.body
  drawing.show(where)
  mark()
  void measure()
}
const measure = useDebounceFn(() => {
  const card = drawing?.card
  const shown = card && !card.hidden ? card : drawing?.root.querySelector<HTMLElement>('.face')
  if (shown) emit('box', shown.offsetWidth, shown.offsetHeight)
}, 400)
function mark() {
  drawing?.root
    .querySelectorAll('[data-part]')
    .forEach((part) =>
      part.toggleAttribute('data-selected', part.getAttribute('data-part') === props.selected),
    )
}
function loaded() {
  const page = frame.value?.contentDocument
  if (!page) return
  ready = true
  const Sheet = (page.defaultView ?? window).CSSStyleSheet
  const sheet = new Sheet()
  sheet.replaceSync(PAGE_CSS)
  page.adoptedStyleSheets = [sheet]
  const lines = (count: number) => Array.from({ length: count }, () => page.createElement('i'))
  const main = page.createElement('main')
  main.append(...lines(3), page.createElement('section'), ...lines(11))
  page.body.append(main)
  draw()
}
// Drawing anew would take the caret away from whoever is typing on this very frame.
watch(
  () => [props.document, props.step, props.firstName, props.extras],
  () => !typing() && draw(),
  { deep: true },
)
watch(() => props.selected, mark)
onBeforeUnmount(() => drawing?.remove())
</script>

<template>
  <div ref="holder" class="relative h-full w-full overflow-hidden">
    <iframe
      ref="frame"
      :title="title"
      srcdoc="<!doctype html><html lang='en'><body></body></html>"
      class="absolute top-0 left-1/2 origin-top-left border-0 bg-sheet"
      :style="{ width: `${width}px`, height: `${height}px`, transform: `scale(${scale}) translateX(-50%)` }"
      @load="loaded"
    />
  </div>
</template>
