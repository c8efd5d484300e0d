import { defineStore } from 'pinia'
import { ref } from 'vue'

export interface Notice {
  id: number
  text: string
  undo?: () => Promise<unknown>
  bad?: boolean
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
  function say(text: string, more: { undo?: () => Promise<unknown>; bad?: boolean } = {}) {
    const id = next++
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
  return { shown, say, drop, hold, letGo }
})
