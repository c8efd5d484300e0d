import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

/** How answers by mail come in. */
export const useMailIn = () =>
  useQuery({ queryKey: ['mail-in'], queryFn: () => take(client.GET('/api/mail-in')) })

/** The mailbox that is read, if one is. */
export const useMailbox = () =>
  useQuery({ queryKey: ['mailbox'], queryFn: () => take(client.GET('/api/mailbox')) })
export const readFrom = (body: Schemas['MailboxIn']) => take(client.PUT('/api/mailbox', { body }))
export const leaveMailbox = () => take(client.DELETE('/api/mailbox'))

export function useSetMailIn() {
  const queries = useQueryClient()
  const keep = (row: object) => void queries.setQueryData(['mail-in'], row)
  return {
    to: async (address: string) => keep(await take(client.PUT('/api/mail-in', { body: { address } }))),
    renew: async () => keep(await take(client.POST('/api/mail-in/renew'))),
  }
}
