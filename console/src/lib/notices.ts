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
  let next = 1
  function drop(id: number) {
    shown.value = shown.value.filter((one) => one.id !== id)
  }
  function say(text: string, more: { undo?: () => Promise<unknown>; bad?: boolean } = {}) {
    const id = next++
    shown.value = [...shown.value.slice(-2), { id, text, ...more }]
    setTimeout(() => drop(id), STAYS)
  }
  return { shown, say, drop }
})
