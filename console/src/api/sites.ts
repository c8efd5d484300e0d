import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export type Site = Schemas['SiteOut']

export function useSites() {
  return useQuery({ queryKey: ['sites'], queryFn: () => take(client.GET('/api/sites')), refetchInterval: 10_000 })
}

export function useAddSite() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['SiteIn']) => take(client.POST('/api/sites', { body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export function useChangeSite() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ id, ...body }: Schemas['SiteIn'] & { id: number }) =>
      take(client.PUT('/api/sites/{site_id}', { params: { path: { site_id: id } }, body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export async function setHouse(site_id: number, house: Record<string, unknown>): Promise<Site> {
  return take(client.PUT('/api/sites/{site_id}/house', { params: { path: { site_id } }, body: { house: house as Record<string, never> } }))
}
