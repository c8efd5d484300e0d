import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { client, take, type Schemas } from './client'

export interface Stretch {
  from: string
  to: string
}
export interface HoursDocument {
  timezone: string
  week: (Stretch & { day: string })[]
  exceptions: { first: string; last: string; label: string; holiday: boolean; stretches: Stretch[] }[]
}
export type Hours = Omit<Schemas['HoursOut'], 'main' | 'others'> & {
  main: { id: number; name: string; document: HoursDocument }
  others: { id: number; name: string; document: HoursDocument }[]
}

export function useHours() {
  return useQuery({
    queryKey: ['hours'],
    // The API says "object" of a document; its fields are those of the hours it stands for.
    queryFn: async () => (await take(client.GET('/api/hours'))) as unknown as Hours,
  })
}

export function useSaveHours() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ id, document }: { id: number; document: HoursDocument }) =>
      take(
        client.PUT('/api/hours/{hours_id}', {
          params: { path: { hours_id: id } },
          body: { document: document as unknown as Record<string, never> },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  })
}
