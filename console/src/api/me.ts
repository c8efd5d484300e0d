import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export const meOptions = queryOptions({ queryKey: ['me'], queryFn: () => take(client.GET('/api/me')), staleTime: 60_000 })

export function useMe() {
  return useQuery(meOptions)
}

/** Zones and countries by name, with a guess from what the browser says of itself. */
export function usePlaces(zone: string) {
  return useQuery({
    queryKey: ['places', zone],
    queryFn: () => take(client.GET('/api/places', { params: { query: { zone } } })),
    staleTime: Infinity,
  })
}

export function useFoundBusiness() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['FoundIn']) => take(client.POST('/api/business', { body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export function useChangeBusiness() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['BusinessIn']) => take(client.PUT('/api/business', { body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export function useCounter() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (away: boolean) => take(client.PUT('/api/counter', { body: { away } })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export function useMembers() {
  return useQuery({ queryKey: ['members'], queryFn: () => take(client.GET('/api/members')) })
}
