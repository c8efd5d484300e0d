import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, take, type Schemas } from './client'

export type MadeUp = Schemas['MadeUp']
export type PageMap = Schemas['MapOut']
export type Cell = Schemas['CellOut']
export type PageReasons = Schemas['PageReasonsOut']
export type Reason = Schemas['ReasonOut']
export type Rehearsal = Schemas['RehearsalOut']
export type Stretch = Schemas['TrackStretchOut']
export type SavedVisitor = Schemas['VisitorOut']

export type Deed =
  | { at: number; do: 'page'; url: string; screens: number; notice?: boolean }
  | { at: number; do: 'scroll'; to: number }
  | { at: number; do: 'click'; on: string }
  | { at: number; do: 'see'; on: string }
  | { at: number; do: 'open'; touchpoint: string }
  | { at: number; do: 'move' | 'exit' | 'close' | 'answer' | 'settle' | 'gone' }

export const freshVisitor = (at: string): MadeUp => ({
  device: 'desktop',
  visits: 1,
  arrival: 'typed',
  landing: '',
  language: 'en',
  on_list: false,
  signed_in: false,
  tags: [],
  storage: true,
  at_counter: true,
  at,
  drafts: false,
  draft: null,
})

export function usePageMap(site: MaybeRefOrGetter<number>, visitor: MaybeRefOrGetter<MadeUp | null>) {
  return useQuery({
    queryKey: ['touchpoints', 'map', site, visitor],
    queryFn: () =>
      take(
        client.POST('/api/page-map', {
          body: { site_id: toValue(site), visitor: toValue(visitor) as MadeUp },
        }),
      ),
    enabled: () => toValue(site) > 0 && toValue(visitor) !== null,
    placeholderData: (before) => before,
  })
}

/** Why a touchpoint shows on the pages of a column of the map, or does not. */
export function useWhyThere(
  site: MaybeRefOrGetter<number>,
  visitor: MaybeRefOrGetter<MadeUp | null>,
  cell: MaybeRefOrGetter<{ id: number; at: number } | null>,
) {
  return useQuery({
    queryKey: ['touchpoints', 'why', site, visitor, cell],
    queryFn: () => {
      const { id: touchpoint_id, at: column } = toValue(cell) as { id: number; at: number }
      const body = { site_id: toValue(site), visitor: toValue(visitor) as MadeUp, touchpoint_id, column }
      return take(client.POST('/api/page-map/why', { body }))
    },
    enabled: () => toValue(cell) !== null && toValue(site) > 0 && toValue(visitor) !== null,
  })
}

export async function rehearse(
  site_id: number,
  visitor: MadeUp,
  deeds: Deed[],
  length: number,
): Promise<Rehearsal> {
  return take(
    client.POST('/api/rehearsals', {
      body: { site_id, visitor, deeds: deeds as Schemas['RehearseIn']['deeds'], length },
    }),
  )
}

export async function linkFor(site_id: number, visitor: MadeUp, path: string): Promise<string> {
  return (await take(client.POST('/api/rehearsals/link', { body: { site_id, visitor, path } }))).url
}

export function useVisitors() {
  return useQuery({
    queryKey: ['rehearsal-visitors'],
    queryFn: () => take(client.GET('/api/rehearsal-visitors')),
  })
}

export function useKeepVisitor() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['VisitorIn']) => take(client.POST('/api/rehearsal-visitors', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['rehearsal-visitors'] }),
  })
}

export function useForgetVisitor() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (visitor_id: number) =>
      take(client.DELETE('/api/rehearsal-visitors/{visitor_id}', { params: { path: { visitor_id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['rehearsal-visitors'] }),
  })
}
