import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { client, sendFile, take, type Schemas } from './client'

export type Brought = Schemas['ReadOut']
export type Column = Brought['columns'][number]
export type Trial = Schemas['TrialOut']
const at = (import_id: number) => ({ params: { path: { import_id } } })

export const useImports = () =>
  useQuery({ queryKey: ['imports'], queryFn: () => take(client.GET('/api/imports')) })

/** One file; while a job is at work on it, it is asked for again and again. */
export function useImport(id: Ref<number>) {
  return useQuery({
    queryKey: computed(() => ['import', id.value]),
    queryFn: () => take(client.GET('/api/imports/{import_id}', at(id.value))),
    enabled: computed(() => id.value > 0),
    refetchInterval: (query) =>
      ['taking', 'undoing'].includes(query.state.data?.state ?? '') ? 1_500 : false,
  })
}

export function useTrial(id: Ref<number>, stamp: Ref<string>) {
  return useQuery({
    queryKey: computed(() => ['trial', id.value, stamp.value]),
    queryFn: () => take(client.GET('/api/imports/{import_id}/trial', at(id.value))),
    enabled: computed(() => id.value > 0 && stamp.value !== ''),
    placeholderData: (before) => before,
  })
}

export const upload = (file: File) =>
  sendFile<Brought>('/api/imports', file, 'This file could not be taken in.')

export const setUp = (id: number, body: Schemas['SettingsIn']) =>
  take(client.PUT('/api/imports/{import_id}', { ...at(id), body }))
export const takeIn = (id: number) => take(client.POST('/api/imports/{import_id}/take', at(id)))
export const undoImport = (id: number) => take(client.POST('/api/imports/{import_id}/undo', at(id)))
export const dropImport = (id: number) => take(client.DELETE('/api/imports/{import_id}', at(id)))

export function useFresh() {
  const queries = useQueryClient()
  return (row?: Brought) => {
    if (row) queries.setQueryData(['import', row.id], row)
    return Promise.all(
      ['imports', 'import', 'people'].map((key) => queries.invalidateQueries({ queryKey: [key] })),
    )
  }
}
