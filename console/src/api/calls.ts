import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { client, take } from './client'

/** The call that was booked with a follow-up, as long as it is ahead. */
export function useCall(id: Ref<number>) {
  const queries = useQueryClient()
  const at = () => ({ params: { path: { followup_id: id.value } } })
  const found = useQuery({
    queryKey: computed(() => ['call', id.value]),
    queryFn: () => take(client.GET('/api/follow-ups/{followup_id}/call', at())),
    staleTime: 0,
  })
  const again = () =>
    Promise.all(
      ['call', 'follow-up', 'follow-ups', 'day'].map((key) => queries.invalidateQueries({ queryKey: [key] })),
    )
  return {
    call: found.data,
    move: async (time: string) => {
      await take(client.PUT('/api/follow-ups/{followup_id}/call', { ...at(), body: { time } }))
      await again()
    },
    cancel: async () => {
      await take(client.DELETE('/api/follow-ups/{followup_id}/call', at()))
      await again()
    },
  }
}
