import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { client, take } from './client'

/** How answers by mail come in. */
export const useMailIn = () => useQuery({ queryKey: ['mail-in'], queryFn: () => take(client.GET('/api/mail-in')) })

export function useSetMailIn() {
  const queries = useQueryClient()
  const keep = (row: object) => void queries.setQueryData(['mail-in'], row)
  return {
    to: async (address: string) => keep(await take(client.PUT('/api/mail-in', { body: { address } }))),
    renew: async () => keep(await take(client.POST('/api/mail-in/renew'))),
  }
}
