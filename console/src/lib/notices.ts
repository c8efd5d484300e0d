import { defineStore } from 'pinia'
import { ref } from 'vue'

export interface Notice {
  id: number
  text: string
  undo?: () => Promise<unknown>
  bad?: boolean
  /**
   * What it is about, where its way back puts back a whole state: what is said of it later takes that way
   * away.
   */
  about?: string
}

const STAYS = 10_000

/** Short words about what has just been done, with a way back. */
export const useNotices = defineStore('notices', () => {
  const shown = ref<Notice[]>([])
  const goes = new Map<number, ReturnType<typeof setTimeout>>()
  let next = 1
  function drop(id: number) {
    goes.delete(id)
    shown.value = shown.value.filter((one) => one.id !== id)
  }
  /**
   * Something else is being done to it: going back to what was before the last change would undo this one
   * too.
   */
  function past(about: string) {
    shown.value = shown.value.map((one) => (one.about === about ? { ...one, undo: undefined } : one))
  }
  function say(text: string, more: Omit<Notice, 'id' | 'text'> = {}) {
    const id = next++
    if (more.about) past(more.about)
    shown.value = [...shown.value.slice(-2), { id, text, ...more }]
    letGo(id)
  }
  /** It stays as long as the pointer or the focus is on it, and as long again after. */
  function hold(id: number) {
    clearTimeout(goes.get(id))
  }
  function letGo(id: number) {
    hold(id)
    goes.set(
      id,
      setTimeout(() => drop(id), STAYS),
    )
  }
  return { shown, say, past, drop, hold, letGo }
})
