import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import type { TouchpointDocument } from '@visitor/generated/document'
import { client, take, type Schemas } from './client'

export type Draft = Omit<Schemas['DraftOut'], 'document'> & { document: TouchpointDocument }
export type Summary = Schemas['TouchpointOut']

// The API says "object" of a document; what it holds is told by its own schema.
const typed = (draft: Schemas['DraftOut']): Draft => draft as unknown as Draft
const path = (touchpoint_id: number) => ({ path: { touchpoint_id } })

export function useTouchpoints() {
  return useQuery({ queryKey: ['touchpoints'], queryFn: () => take(client.GET('/api/touchpoints')) })
}

export function useStarters() {
  return useQuery({ queryKey: ['starters'], queryFn: () => take(client.GET('/api/starters')), staleTime: Infinity })
}

export function useMake() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: async (body: Schemas['MakeIn']) => typed(await take(client.POST('/api/touchpoints', { body }))),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export async function readDraft(id: number): Promise<Draft> {
  return typed(await take(client.GET('/api/touchpoints/{touchpoint_id}', { params: path(id) })))
}

export async function saveDraft(id: number, document: TouchpointDocument, based_on: number, run: string): Promise<Draft> {
  const body = { document: document as unknown as Record<string, never>, based_on, run }
  return typed(await take(client.PUT('/api/touchpoints/{touchpoint_id}/draft', { params: path(id), body })))
}

export async function rename(id: number, name: string): Promise<Draft> {
  return typed(await take(client.PUT('/api/touchpoints/{touchpoint_id}/name', { params: path(id), body: { name } })))
}

export async function step(id: number, way: 'undo' | 'redo'): Promise<Draft> {
  const params = path(id)
  return typed(
    await take(
      way === 'undo'
        ? client.POST('/api/touchpoints/{touchpoint_id}/undo', { params })
        : client.POST('/api/touchpoints/{touchpoint_id}/redo', { params }),
    ),
  )
}

export async function turn(id: number, way: 'on' | 'off' | 'live'): Promise<Draft> {
  const params = path(id)
  const calls = {
    on: () => client.POST('/api/touchpoints/{touchpoint_id}/on', { params }),
    off: () => client.POST('/api/touchpoints/{touchpoint_id}/off', { params }),
    live: () => client.POST('/api/touchpoints/{touchpoint_id}/live', { params }),
  }
  return typed(await take(calls[way]()))
}
