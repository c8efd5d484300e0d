import { ref } from 'vue'
import { Failure } from '@/api/client'

/** A small form that says what is wrong, by field where it can. */
export function useForm() {
  const error = ref<Error | null>(null)
  const fields = ref<Record<string, string>>({})
  const busy = ref(false)
  async function run(work: () => Promise<unknown>): Promise<void> {
    error.value = null
    fields.value = {}
    busy.value = true
    try {
      await work()
    } catch (problem) {
      error.value = problem instanceof Error ? problem : new Error('This did not work; please try again.')
      if (problem instanceof Failure) fields.value = problem.fields
    } finally {
      busy.value = false
    }
  }
  function clear(): void {
    error.value = null
    fields.value = {}
  }
  return { error, fields, busy, run, clear }
}

/** Where to go on to after signing in: an address of the console's own, whatever was asked for. */
export function inside(next: unknown): string {
  if (typeof next !== 'string') return '/follow-up'
  // A browser reads "/\host" and "//host" as another site's address, and leaves out tabs and line ends.
  const asked = URL.canParse(next, location.origin) ? new URL(next, location.origin) : null
  return next.startsWith('/') && asked?.origin === location.origin
    ? asked.pathname + asked.search + asked.hash
    : '/follow-up'
}
