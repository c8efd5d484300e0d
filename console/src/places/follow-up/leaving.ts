import { shallowRef } from 'vue'

/**
 * Words that leave the box: an answer or a note that is on its way. They are no draft any more, whatever box is on
 * the screen by then; where they could not be sent they are one again.
 */
interface Leaving {
  id: number
  said: string
}
const onTheWay = new Map<number, string>()
/** What has just left, or could not; boxes that show it look here. */
export const left = shallowRef<Leaving | null>(null)
export const stayed = shallowRef<Leaving | null>(null)

const draftOf = (id: number) => `answer-${id}`
const keyOf = (id: number) => `answer-key-${id}`

export const isLeaving = (id: number, said: string) => !!said && onTheWay.get(id) === said

/** One key for one answer: the same words again send one mail, other words are another answer. */
export function keyFor(id: number, said: string): string {
  const [key, words] = JSON.parse(sessionStorage.getItem(keyOf(id)) ?? '[]') as [string?, string?]
  if (key && words === said) return key
  const fresh = crypto.getRandomValues(new Uint32Array(2)).join('-')
  sessionStorage.setItem(keyOf(id), JSON.stringify([fresh, said]))
  return fresh
}

/** Send words off; once they are gone the draft of them is, too. */
export async function sendOff<T>(id: number, said: string, send: () => Promise<T>): Promise<T> {
  onTheWay.set(id, said)
  try {
    const done = await send()
    // What was typed since then is the next draft.
    if (sessionStorage.getItem(draftOf(id)) === said) sessionStorage.removeItem(draftOf(id))
    sessionStorage.removeItem(keyOf(id))
    onTheWay.delete(id)
    left.value = { id, said }
    return done
  } catch (problem) {
    onTheWay.delete(id)
    sessionStorage.setItem(draftOf(id), sessionStorage.getItem(draftOf(id)) || said)
    stayed.value = { id, said }
    throw problem
  }
}
