import { computed, ref, watch, type Ref } from 'vue'

/** A copy of what was read, which can be changed by itself. */
export const copyOf = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/**
 * What is being edited of something that others may change meanwhile. `base` is what the draft was made from;
 * what others have changed since is put together with it by the server.
 */
export function useDraft<T>(stands: () => T) {
  const copied = (): T => copyOf(stands())
  const draft = ref(copied()) as Ref<T>
  const base = ref(copied()) as Ref<T>
  const now = computed(() => JSON.stringify(stands()))
  const began = computed(() => JSON.stringify(base.value))
  const changed = computed(() => JSON.stringify(draft.value) !== began.value)
  /** Whether what stands there is no longer what the draft was made from. */
  const elsewhere = computed(() => changed.value && now.value !== began.value)
  /** Drops the draft for what stands there. */
  function afresh(): void {
    draft.value = copied()
    base.value = copied()
  }
  /** What was sent is kept: on from what stands there now, or from what was sent where more was typed since. */
  function kept(sent: T, stood: T = stands()): void {
    const untouched = JSON.stringify(draft.value) === JSON.stringify(sent)
    const copy = () => copyOf(untouched ? stood : sent)
    if (untouched) draft.value = copy()
    if (untouched || changed.value) base.value = copy()
  }
  watch(now, () => {
    if (!changed.value) afresh()
  })
  return { draft, base, changed, elsewhere, afresh, kept }
}
