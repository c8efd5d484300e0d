import { onMounted, onUnmounted, shallowReactive } from 'vue'

export interface Key {
  keys: string
  does: string
}

/** The keys of the screen that is shown, for the list that F1 opens. */
export const screenKeys = shallowReactive<Key[]>([])

export function useKeys(keys: Key[]): void {
  onMounted(() => screenKeys.push(...keys))
  onUnmounted(() => keys.forEach((key) => screenKeys.splice(screenKeys.indexOf(key), 1)))
}
