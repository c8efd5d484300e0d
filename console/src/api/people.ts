import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { client, take, type Schemas } from './client'

export type Filter = Schemas['Filter']
export type Condition = Filter['conditions'][number]
export type Card = Schemas['WholeCardOut']

/** A filter as it stands in an address; nothing for everybody. */
export const written = (wanted: Filter) => (wanted.conditions.length ? JSON.stringify(wanted) : '')

export function readFilter(text: unknown): Filter {
  const nobody: Filter = { conditions: [], any: false }
  if (typeof text !== 'string' || !text) return nobody
  try {
    const found = JSON.parse(text) as Filter
    return Array.isArray(found.conditions) ? { conditions: found.conditions, any: !!found.any } : nobody
  } catch {
    return nobody
  }
}

export function usePeople(wanted: Ref<string>, q: Ref<string>) {
  return useInfiniteQuery({
    queryKey: computed(() => ['people', wanted.value, q.value]),
    queryFn: ({ pageParam }) =>
      take(
        client.GET('/api/people', {
          params: { query: { wanted: wanted.value, q: q.value, after: pageParam } },
        }),
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.after,
    placeholderData: (before) => before,
  })
}

export function usePerson(id: Ref<number>) {
  return useQuery({
    queryKey: computed(() => ['person', id.value]),
    queryFn: () => take(client.GET('/api/people/{person_id}', { params: { path: { person_id: id.value } } })),
    staleTime: 0,
  })
}

export function useWorkWith(id: Ref<number>) {
  return useQuery({
    queryKey: computed(() => ['work-with', id.value]),
    queryFn: () =>
      take(client.GET('/api/people/{person_id}/follow-ups', { params: { path: { person_id: id.value } } })),
  })
}

export const useGroups = () =>
  useQuery({ queryKey: ['groups'], queryFn: () => take(client.GET('/api/groups')) })
export const useNames = () =>
  useQuery({ queryKey: ['people-names'], queryFn: () => take(client.GET('/api/people-names')) })
export const useCountedTags = () =>
  useQuery({ queryKey: ['people-tags'], queryFn: () => take(client.GET('/api/people-tags')) })
export const useSuggested = () =>
  useQuery({ queryKey: ['people-suggested'], queryFn: () => take(client.GET('/api/people-suggested')) })

/** Everything that shows people looks again. */
export function useAgain() {
  const queries = useQueryClient()
  const kinds = [
    'people',
    'person',
    'work-with',
    'groups',
    'people-tags',
    'tags',
    'people-suggested',
    'people-names',
    'follow-ups',
    'follow-up',
  ]
  return () => Promise.all(kinds.map((kind) => queries.invalidateQueries({ queryKey: [kind] })))
}

export type Change =
  | { do: 'name'; name: string }
  | { do: 'address'; text: string }
  | { do: 'drop'; address: number }
  | { do: 'note'; text: string }
  | { do: 'tag'; tag: string; on: boolean }

export function useChangeCard() {
  const queries = useQueryClient()
  const again = useAgain()
  return useMutation({
    mutationFn: ({ id, change }: { id: number; change: Change }): Promise<Card> => {
      const params = { path: { person_id: id } }
      if (change.do === 'name')
        return take(client.PUT('/api/people/{person_id}/name', { params, body: { name: change.name } }))
      if (change.do === 'address')
        return take(client.POST('/api/people/{person_id}/addresses', { params, body: { text: change.text } }))
      if (change.do === 'note')
        return take(client.POST('/api/people/{person_id}/note', { params, body: { text: change.text } }))
      if (change.do === 'tag') {
        return take(
          client.POST('/api/people/{person_id}/tag', { params, body: { tag: change.tag, on: change.on } }),
        )
      }
      const path = { person_id: id, address_id: change.address }
      return take(client.DELETE('/api/people/{person_id}/addresses/{address_id}', { params: { path } }))
    },
    onSuccess: (card) => {
      queries.setQueryData(['person', card.id], card)
      return again()
    },
  })
}

const person = (person_id: number) => ({ params: { path: { person_id } } })
export const addPerson = (body: Schemas['AddPersonIn']) => take(client.POST('/api/people', { body }))
export const previewJoin = (id: number, body: Schemas['JoinIn']) =>
  take(client.POST('/api/people/{person_id}/join-preview', { ...person(id), body }))
export const join = (id: number, body: Schemas['JoinIn']) =>
  take(client.POST('/api/people/{person_id}/join', { ...person(id), body }))
export const part = (merge_id: number) =>
  take(client.POST('/api/merges/{merge_id}/undo', { params: { path: { merge_id } } }))
export const notOne = (id: number, other_id: number) =>
  take(client.POST('/api/people/{person_id}/not-one', { ...person(id), body: { other_id } }))
export const whatGoes = (id: number) => take(client.GET('/api/people/{person_id}/goes', person(id)))
export const erase = (id: number) => take(client.DELETE('/api/people/{person_id}', person(id)))
export const keepGroup = (body: Schemas['GroupIn']) => take(client.POST('/api/groups', { body }))
export const dropGroup = (group_id: number) =>
  take(client.DELETE('/api/groups/{group_id}', { params: { path: { group_id } } }))
export const renameTag = (tag: string, name: string) =>
  take(client.PUT('/api/people-tags', { body: { tag, name } }))
export const dropTag = (tag: string) =>
  take(client.DELETE('/api/people-tags', { params: { query: { tag } } }))
