import { useQueryClient } from '@tanstack/vue-query'
import { useDebounceFn, useEventListener } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue'
import type { TouchpointDocument } from '@/api/document'
import { Failure } from '@/api/client'
import { readDraft, rename, saveDraft, step, turn, type Draft } from '@/api/touchpoints'

const SAVE_AFTER = 600
const RUN_ENDS_AFTER = 3000

/** A touchpoint being edited: kept as a draft by itself, one revision a run of changes, undone and redone. */
export function useEditing(id: number) {
  const queries = useQueryClient()
  const draft = shallowRef<Draft | null>(null)
  const document = ref<TouchpointDocument | null>(null)
  const error = ref<Error | null>(null)
  const clash = ref(false)
  const dirty = ref(false)
  const saving = ref(false)
  let run = ''
  /** One after the other: of two answers that cross each other, the older would win. */
  let line: Promise<void> = Promise.resolve()
  /** What was not kept yet when a change to something else began: every change is a step of its own. */
  let before: { text: string; run: string }[] = []
  let about = ''
  let lastEdit = 0
  /** What is changed while an answer that brings another document is under way: done again on top of it. */
  let meanwhile: ((document: TouchpointDocument) => unknown)[] | null = null

  function take(fresh: Draft, withDocument = true) {
    draft.value = fresh
    if (withDocument) document.value = structuredClone(fresh.document)
    void queries.invalidateQueries({ queryKey: ['touchpoints'] })
    void queries.invalidateQueries({ queryKey: ['day'] })
  }
  async function read() {
    try {
      take(await readDraft(id))
      error.value = null
      clash.value = false
      dirty.value = false
    } catch (problem) {
      error.value = problem as Error
    }
  }

  /** Change the document; changes to one thing without a pause are one run. */
  function edit(what: string, change: (document: TouchpointDocument) => unknown) {
    if (!document.value) return
    const now = Date.now()
    if (what !== about || now - lastEdit > RUN_ENDS_AFTER) {
      if (dirty.value) before.push({ text: JSON.stringify(document.value), run })
      run = `${now}-${Math.round(Math.random() * 1e6)}`
    }
    about = what
    lastEdit = now
    change(document.value)
    meanwhile?.push(change)
    dirty.value = true
    void later()
  }
  const later = useDebounceFn(() => line.then(() => save()), SAVE_AFTER)

  let current: Promise<void> | null = null
  async function save(onTop = false): Promise<void> {
    // Several may wait for the same one to end: whoever comes second finds the next under way.
    while (current) await current
    if (!dirty.value || !document.value || !draft.value || (clash.value && !onTop)) return
    current = saveNow(onTop).finally(() => (current = null))
    await current
  }
  async function saveNow(onTop: boolean) {
    if (!document.value || !draft.value) return
    const steps = [...before, { text: JSON.stringify(document.value), run }]
    before = []
    saving.value = true
    dirty.value = false
    let basis = draft.value.number
    try {
      if (onTop) basis = (await readDraft(id)).number
      while (steps[0]) {
        const fresh = await saveDraft(
          id,
          JSON.parse(steps[0].text) as TouchpointDocument,
          basis,
          steps[0].run,
        )
        steps.shift()
        basis = fresh.number
        // What was typed meanwhile stays; it is kept next.
        if (!steps.length) take(fresh, false)
      }
      error.value = null
      clash.value = false
    } catch (problem) {
      dirty.value = true
      // A step on the way that cannot be kept is left out: what stands now holds it too.
      if (draft.value.number !== basis) draft.value = { ...draft.value, number: basis }
      error.value = problem as Error
      clash.value = problem instanceof Failure && problem.status === 409
    } finally {
      saving.value = false
    }
  }

  function after(work: () => Promise<Draft>): Promise<void> {
    line = line.then(() => afterSaving(work))
    return line
  }
  async function afterSaving(work: () => Promise<Draft>) {
    // What is changed while it is being kept is kept as well, before what comes after it.
    do await save()
    while (dirty.value && !error.value && !clash.value)
    if (dirty.value) return asItIs()
    meanwhile = []
    try {
      take(await work())
      for (const change of meanwhile) if (document.value) change(document.value)
      before = []
      error.value = null
    } catch (problem) {
      error.value = problem as Error
      asItIs()
    }
    meanwhile = null
    run = ''
  }
  /** Boxes that show what was asked for and not done show what is so again. */
  function asItIs() {
    if (draft.value) draft.value = { ...draft.value }
  }
  const turned = (work: () => Promise<Draft>) => after(work)
  const back = (way: 'undo' | 'redo') => after(() => step(id, way))
  const go = (way: 'on' | 'off' | 'live') => after(() => turn(id, way))
  const call = (name: string) => after(() => rename(id, name))

  useEventListener('beforeunload', (event) => {
    if (!dirty.value && !saving.value) return
    void save()
    event.preventDefault()
  })
  onBeforeUnmount(() => void save())
  void read()

  const status = computed(() =>
    error.value ? 'not saved' : saving.value || dirty.value ? 'saving …' : 'saved',
  )
  return { draft, document, error, clash, status, edit, save, read, back, go, call, turned, take }
}
