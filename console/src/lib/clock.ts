import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useDay } from '@/api/follow-ups'
import { useMe } from '@/api/me'

/** The business's zone and the server's time, going on between two readings unless it is fixed. */
export function useClock() {
  const { data: day, dataUpdatedAt } = useDay()
  const { data: me } = useMe()
  const tick = ref(Date.now())
  useIntervalFn(() => (tick.value = Date.now()), 10_000)
  const zone = computed(() => day.value?.timezone ?? me.value?.business?.timezone ?? 'UTC')
  const now = computed(() => {
    const said = day.value?.at ?? me.value?.now
    if (!said) return new Date(tick.value)
    if (me.value?.clock_fixed || !dataUpdatedAt.value) return new Date(said)
    return new Date(Date.parse(said) + Math.max(0, tick.value - dataUpdatedAt.value))
  })
  return { zone, now }
}

/** A time of this device's clock, on the server's: as long ago as it is here. */
export const onOurs = (at: number | string, now: Date) =>
  new Date(now.getTime() - (Date.now() - new Date(at).getTime()))
