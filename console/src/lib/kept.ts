import { dehydrate, hydrate, type DehydratedState, type QueryClient } from '@tanstack/vue-query'
import { useDebounceFn } from '@vueuse/core'
import { clear, createStore, del, get, set } from 'idb-keyval'

/** What is kept on the device, so that the list and the people last seen can be read without a network. */
const store = typeof indexedDB === 'undefined' ? null : createStore('intavo', 'kept')
const KEPT = new Set([
  'me',
  'members',
  'follow-ups',
  'follow-up',
  'kept-answers',
  'day',
  'tags',
  'told',
  'clock',
  'ways-in',
  'sites',
  'touchpoints',
])
const OWNER = 'intavo-kept-for'
export const LASTS = 7 * 24 * 3600 * 1000

/** Reads a value that was kept; nothing where the browser keeps nothing. */
export async function keptValue<T>(key: string): Promise<T | undefined> {
  return store ? get<T>(key, store).catch(() => undefined) : undefined
}
export async function keepValue(key: string, value: unknown): Promise<void> {
  if (store) await set(key, value, store).catch(() => undefined)
}

/** Forgets what was read here. */
export async function forgetRead(): Promise<void> {
  if (store) await del('queries', store).catch(() => undefined)
}

/**
 * Forgets everything that is kept on this device: whoever signs out, or is taken out, leaves nothing behind.
 */
export async function wipe(): Promise<void> {
  localStorage.removeItem(OWNER)
  for (const key of Object.keys(sessionStorage)) if (key.startsWith('answer-')) sessionStorage.removeItem(key)
  if (store) await clear(store).catch(() => undefined)
}

/** Whose what is kept is: of another member, or another business, nothing is left. */
export async function keptFor(member: string): Promise<void> {
  if (localStorage.getItem(OWNER) !== member) {
    const before = localStorage.getItem(OWNER)
    if (before) await wipe()
    localStorage.setItem(OWNER, member)
  }
}

interface Kept {
  at: number
  state: DehydratedState
}

/** What was read last time stands there at once; what is read from now on is kept. */
export async function keepQueries(queries: QueryClient): Promise<void> {
  for (const key of KEPT) queries.setQueryDefaults([key], { gcTime: LASTS })
  const kept = await keptValue<Kept>('queries')
  if (kept && Date.now() - kept.at < LASTS) {
    hydrate(queries, kept.state)
    // Shown at once, and asked for anew at once: however young it is, it may have changed.
    await queries.invalidateQueries({ refetchType: 'none' })
  }
  const keep = useDebounceFn(
    () => {
      if (!localStorage.getItem(OWNER)) return
      const state = dehydrate(queries, {
        shouldDehydrateQuery: (query) =>
          query.state.status === 'success' && KEPT.has(String(query.queryKey[0])),
        shouldDehydrateMutation: () => false,
      })
      // Made plain, since what a component watches cannot be put away as it is.
      void keepValue('queries', { at: Date.now(), state: JSON.parse(JSON.stringify(state)) as unknown })
    },
    500,
    { maxWait: 2_000 },
  )
  queries.getQueryCache().subscribe((event) => {
    if (event.type === 'updated' && event.action.type === 'success') void keep()
  })
}
