import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export type GiveRule = Schemas['GiveRule']

/** Whose new work is, in the owner's order. */
export function useGiveRules() {
  const queries = useQueryClient()
  const found = useQuery({ queryKey: ['give-rules'], queryFn: () => take(client.GET('/api/give-rules')) })
  return {
    rules: found.data,
    set: async (body: Schemas['GiveRulesIn']) => {
      await take(client.PUT('/api/give-rules', { body }))
      await queries.invalidateQueries({ queryKey: ['give-rules'] })
    },
  }
}
