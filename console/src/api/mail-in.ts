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
  const keep = (row: Schemas['MailInOut']) => queries.setQueryData(['mail-in'], row)
  return {
    /** Gives back where answers come to now; "" where none come in. */
    to: async (address: string, direct: boolean) => {
      const row = await take(client.PUT('/api/mail-in', { body: { address, direct } }))
      keep(row)
      return row.address || (row.direct ? row.own : '')
    },
    renew: async () => void keep(await take(client.POST('/api/mail-in/renew'))),
  }
}
