import { useQuery } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export type Quarantined = Schemas['QuarantinedOut']

export function useQuarantine() {
  return useQuery({
    queryKey: ['quarantine'],
    queryFn: () => take(client.GET('/api/quarantine')),
    refetchInterval: 30_000,
  })
}

const path = (quarantined_id: number) => ({ path: { quarantined_id } })

export async function release(id: number): Promise<void> {
  await take(client.POST('/api/quarantine/{quarantined_id}/release', { params: path(id) }))
}

export async function throwOut(id: number): Promise<void> {
  await take(client.DELETE('/api/quarantine/{quarantined_id}', { params: path(id) }))
}
