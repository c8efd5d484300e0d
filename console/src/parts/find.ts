import { ref } from 'vue'

/** Whether the box that finds or does anything is open. */
export const finding = ref(false)
