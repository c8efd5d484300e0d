import { useOnline } from '@vueuse/core'
import { ref, watch } from 'vue'
import { Failure } from '@/api/client'
import { keepValue, keptValue } from './kept'

/**
 * Something that was done without a network: `once` is the device's own id for it, `seen` what was known
 * then.
 */
export interface Waiting<Work = unknown> {
  once: string
  id: number
  called: string
  words: string
  work: Work
  seen: number
  at: string
  /** Why it could not be done once the network was back. */
  wrong?: string
  /** A colleague did something meanwhile: it can be done all the same. */
  changed?: boolean
}

/** What is said of something that was done without a network. */
export const ASIDE =
  'There is no connection. It is kept on this device, and goes out as soon as there is one.'

type Sender = (one: Waiting, seen: number | null) => Promise<unknown>

export const waiting = ref<Waiting[]>([])
let sender: Sender | null = null
let busy: Promise<void> | null = null

const keep = () => keepValue('outbox', JSON.parse(JSON.stringify(waiting.value)))

/** Puts something in; it goes out, once, as soon as there is a network. */
export async function putAside(one: Omit<Waiting, 'once' | 'at'>): Promise<void> {
  waiting.value = [...waiting.value, { ...one, once: crypto.randomUUID(), at: new Date().toISOString() }]
  await keep()
}

export async function throwAway(once: string): Promise<void> {
  waiting.value = waiting.value.filter((one) => one.once !== once)
  await keep()
}

/** Sends what waits, in its order; what is refused stays, with the reason. */
export function flush(): Promise<void> {
  busy ??= go().finally(() => (busy = null))
  return busy
}
async function go() {
  for (const one of [...waiting.value]) {
    if (one.wrong || !sender) continue
    try {
      await sender(one, one.seen)
      await throwAway(one.once)
    } catch (problem) {
      if (!(await settled(one.once, problem))) return
    }
  }
}
/** Whether that was an answer: no network and a server that is away are not. */
async function settled(once: string, problem: unknown): Promise<boolean> {
  const status = problem instanceof Failure ? problem.status : 0
  if (status === 0 || status >= 500 || status === 429) return false
  const changed = problem instanceof Failure && !!problem.fields.seen
  const wrong = problem instanceof Error ? problem.message : 'This could not be done.'
  waiting.value = waiting.value.map((one) => (one.once === once ? { ...one, wrong, changed } : one))
  await keep()
  return true
}

/** Does it although a colleague did something meanwhile. */
export async function doAnyway(once: string): Promise<void> {
  const one = waiting.value.find((each) => each.once === once)
  if (!one || !sender) return
  try {
    await sender(one, null)
    await throwAway(once)
  } catch (problem) {
    await settled(once, problem)
  }
}

/** From now on what waits goes out whenever there is a network. */
export async function startOutbox(how: Sender): Promise<void> {
  sender = how
  waiting.value = (await keptValue<Waiting[]>('outbox')) ?? []
  const online = useOnline()
  watch(online, (is) => is && void flush())
  window.setInterval(() => waiting.value.length && online.value && void flush(), 20_000)
  void flush()
}
