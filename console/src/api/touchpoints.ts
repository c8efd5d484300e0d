import { keepPreviousData, queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import type { Ref } from 'vue'
import type { Extras } from '@visitor/render'
import type { TouchpointDocument } from './document'
import { client, take, type Schemas } from './client'

export type Draft = Schemas['DraftOut']
export type Starter = Schemas['StarterOut']
export type Revision = Schemas['RevisionOut']
export type RevisionSeen = Schemas['RevisionSeenOut']
export type Summary = Schemas['TouchpointOut']

const path = (touchpoint_id: number) => ({ path: { touchpoint_id } })

export const touchpointsOptions = queryOptions({
  queryKey: ['touchpoints'],
  queryFn: () => take(client.GET('/api/touchpoints')),
})
export const useTouchpoints = () => useQuery(touchpointsOptions)

export const startersOptions = queryOptions({
  queryKey: ['starters'],
  queryFn: () => take(client.GET('/api/starters')),
  staleTime: Infinity,
})
export const useStarters = () => useQuery(startersOptions)

/** What can be added to a touchpoint, in the language that it is in. */
export type Addable = Schemas['AddableOut']

export const useAddable = (id: number, language: Ref<string>) =>
  useQuery({
    queryKey: ['addable', id, language],
    placeholderData: keepPreviousData,
    queryFn: () => {
      const params = { ...path(id), query: { language: language.value } }
      return take(client.GET('/api/touchpoints/{touchpoint_id}/addable', { params }))
    },
    staleTime: Infinity,
  })

/** The rules in words, as the server says them; what cannot be read yet leaves the words of before. */
export const useShowWords = (show: Ref<TouchpointDocument['show']>) =>
  useQuery({
    queryKey: ['show-words', show],
    placeholderData: keepPreviousData,
    queryFn: () => take(client.POST('/api/show-words', { body: { show: show.value } as Schemas['ShowIn'] })),
    staleTime: Infinity,
    retry: false,
  })

export function useMake() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['MakeIn']) => take(client.POST('/api/touchpoints', { body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

/** What an address is taken for; `kind` is empty where it is none. */
export async function readAddress(text: string) {
  return take(client.GET('/api/address', { params: { query: { text } } }))
}

/** An amount of money as it is written; `amount` is empty where it is none. */
export async function readMoney(text: string) {
  return take(client.GET('/api/money', { params: { query: { text } } }))
}

export async function readDraft(id: number): Promise<Draft> {
  return take(client.GET('/api/touchpoints/{touchpoint_id}', { params: path(id) }))
}

export async function saveDraft(
  id: number,
  document: TouchpointDocument,
  based_on: number,
  run: string,
): Promise<Draft> {
  const body = { document, based_on, run, as_far: true }
  return take(client.PUT('/api/touchpoints/{touchpoint_id}/draft', { params: path(id), body }))
}

export async function rename(id: number, name: string): Promise<Draft> {
  return take(client.PUT('/api/touchpoints/{touchpoint_id}/name', { params: path(id), body: { name } }))
}

export async function step(id: number, way: 'undo' | 'redo'): Promise<Draft> {
  const params = path(id)
  return take(
    way === 'undo'
      ? client.POST('/api/touchpoints/{touchpoint_id}/undo', { params })
      : client.POST('/api/touchpoints/{touchpoint_id}/redo', { params }),
  )
}

export async function turn(id: number, way: 'on' | 'off' | 'live'): Promise<Draft> {
  const params = path(id)
  const calls = {
    on: () => client.POST('/api/touchpoints/{touchpoint_id}/on', { params }),
    off: () => client.POST('/api/touchpoints/{touchpoint_id}/off', { params }),
    live: () => client.POST('/api/touchpoints/{touchpoint_id}/live', { params }),
  }
  return take(calls[way]())
}

export async function turnInto(id: number, body: Schemas['TurnIn']): Promise<Draft> {
  return take(client.POST('/api/touchpoints/{touchpoint_id}/turn-into', { params: path(id), body }))
}

export async function placeOn(id: number, site_ids: number[]): Promise<Draft> {
  return take(client.PUT('/api/touchpoints/{touchpoint_id}/sites', { params: path(id), body: { site_ids } }))
}

export async function forgetShowings(id: number): Promise<Draft> {
  return take(client.POST('/api/touchpoints/{touchpoint_id}/forget-showings', { params: path(id) }))
}

/** A copy; in another language, if one is said. */
export async function copy(id: number, language = ''): Promise<Draft> {
  return take(client.POST('/api/touchpoints/{touchpoint_id}/copy', { params: path(id), body: { language } }))
}

export async function throwAway(id: number): Promise<void> {
  await take(client.DELETE('/api/touchpoints/{touchpoint_id}', { params: path(id) }))
}

export async function bringBack(id: number, on: boolean): Promise<void> {
  await take(client.POST('/api/touchpoints/{touchpoint_id}/bring-back', { params: path(id), body: { on } }))
}

export async function putInOrder(touchpoint_ids: number[]): Promise<void> {
  await take(client.PUT('/api/touchpoints/order', { body: { touchpoint_ids } }))
}

export async function takeIn(text: string, name: string): Promise<Draft> {
  return take(client.POST('/api/touchpoints/from-file', { body: { text, name } }))
}

export async function revisions(id: number): Promise<Revision[]> {
  return take(client.GET('/api/touchpoints/{touchpoint_id}/revisions', { params: path(id) }))
}

const numbered = (touchpoint_id: number, number: number) => ({ path: { touchpoint_id, number } })

export async function revision(id: number, number: number): Promise<RevisionSeen> {
  const params = numbered(id, number)
  return take(client.GET('/api/touchpoints/{touchpoint_id}/revisions/{number}', { params }))
}

export async function nameRevision(id: number, number: number, name: string): Promise<Revision[]> {
  const params = numbered(id, number)
  return take(
    client.PUT('/api/touchpoints/{touchpoint_id}/revisions/{number}/name', { params, body: { name } }),
  )
}

export async function returnTo(id: number, number: number): Promise<Draft> {
  const params = numbered(id, number)
  return take(client.POST('/api/touchpoints/{touchpoint_id}/revisions/{number}/return', { params }))
}

export async function addCodes(
  id: number,
  codes: string,
): Promise<{ added: number; known: number; draft: Draft }> {
  return take(client.POST('/api/touchpoints/{touchpoint_id}/codes', { params: path(id), body: { codes } }))
}

export async function dropCodes(id: number): Promise<Draft> {
  return take(client.DELETE('/api/touchpoints/{touchpoint_id}/codes', { params: path(id) }))
}

export async function csvAddress(id: number, wanted: boolean): Promise<Draft> {
  const params = path(id)
  const call = wanted
    ? client.POST('/api/touchpoints/{touchpoint_id}/csv', { params })
    : client.DELETE('/api/touchpoints/{touchpoint_id}/csv', { params })
  return take(call)
}

export async function extras(id: number): Promise<Extras> {
  return (await take(client.GET('/api/touchpoints/{touchpoint_id}/extras', { params: path(id) }))) as Extras
}

export async function covered(
  width: number,
  height: number,
  screen_width: number,
  screen_height: number,
): Promise<number> {
  return (
    await take(
      client.GET('/api/covered', { params: { query: { width, height, screen_width, screen_height } } }),
    )
  ).share
}
