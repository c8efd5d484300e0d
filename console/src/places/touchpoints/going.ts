import { nextTick, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import type { TouchpointDocument } from '@/api/document'

/** Places of findings that are put right outside of the editor. */
export const ELSEWHERE: Record<string, string> = {
  snippet: '/business',
  business: '/business',
  hours: '/hours',
  others: '/touchpoints',
  'site-rules': '/business#site-rules',
}

/** What is beside the stage. */
export const SIDES = { content: 'Content', look: 'Look', after: 'After' }
export type Side = keyof typeof SIDES

interface Editor {
  edited: Ref<TouchpointDocument | null>
  side: Ref<Side>
  step: Ref<string>
  selected: Ref<string | null>
  open: Ref<'history' | 'live' | null>
  save: () => Promise<unknown>
}

function show(box: HTMLElement) {
  box.scrollIntoView({ block: 'center' })
  box.querySelector<HTMLElement>('input, button, select, [contenteditable]')?.focus()
}

/** From what is said of a place in the document to where it is put right. */
export function useGoing({ edited, side, step, selected, open, save }: Editor) {
  const router = useRouter()

  /** To the switch, the show sentence, a box beside the stage, or a part on the step that it stands in. */
  function goTo(place: string) {
    if (place === 'switch') return void save().then(() => (open.value = 'live'))
    if (place === 'show')
      return document.querySelector<HTMLElement>('[aria-label="Show sentence"] button')?.focus()
    const here = edited.value?.steps.some(
      (one) => one.id === place || one.parts.some((part) => part.id === place),
    )
    const elsewhere = here ? undefined : ELSEWHERE[place]
    if (elsewhere) return void save().then(() => router.push(elsewhere))
    const box = document.querySelector<HTMLElement>(`[data-place="${place}"]`)
    const beside = box?.closest<HTMLElement>('[data-side]')?.dataset.side
    if (beside) side.value = beside as Side
    if (/^(look|leaving|spot)/.test(place)) side.value = 'look'
    if (box) return void nextTick(() => show(box))
    // Where there is no site at all, there is no box to tick.
    if (place === 'sites') return void router.push('/business')
    side.value = 'content'
    if (edited.value?.steps.some((one) => one.id === place)) step.value = place
    const home = edited.value?.steps.find((one) => one.parts.some((part) => part.id === place))
    if (home) step.value = home.id
    selected.value = place
  }
  /** The same from a dialog, which gives the focus back where it was once it is gone. */
  function fix(place: string) {
    open.value = null
    window.setTimeout(() => goTo(place), 50)
  }
  return { goTo, fix }
}
