import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { client, sendFile, take, type Schemas } from './client'

export type Copy = Schemas['CopyOut']

/** The copies of the whole business; while one is being worked on, they are asked for again and again. */
export function useCopies() {
  const queries = useQueryClient()
  const again = () =>
    Promise.all(['copies', 'room'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
  const found = useQuery({
    queryKey: ['copies'],
    queryFn: () => take(client.GET('/api/copies')),
    refetchInterval: (query) =>
      query.state.data?.copies.some((one) => one.state === 'working') ? 1_500 : false,
  })
  return {
    found: found.data,
    error: found.error,
    make: async () => {
      await take(client.POST('/api/copies'))
      await again()
    },
    bring: async (file: File) => {
      await sendFile('/api/copies-in', file, 'This file could not be taken in.')
      await again()
    },
    drop: async (copy_id: number) => {
      await take(client.DELETE('/api/copies/{copy_id}', { params: { path: { copy_id } } }))
      await again()
    },
  }
}

/** How much of each kind there is, and may be. */
export const useRoom = () => useQuery({ queryKey: ['room'], queryFn: () => take(client.GET('/api/room')) })
