import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { client, take, type Schemas } from './client'

export type Item = Schemas['ItemOut']
export type One = Schemas['OneOut']

export function useFollowUps() {
  return useInfiniteQuery({
    queryKey: ['follow-ups'],
    queryFn: ({ pageParam }) => take(client.GET('/api/follow-ups', { params: { query: { after: pageParam } } })),
    initialPageParam: '',
    getNextPageParam: (last) => last.after ?? undefined,
    refetchInterval: 30_000,
  })
}

export function useFollowUp(id: Ref<number | null>) {
  return useQuery({
    queryKey: computed(() => ['follow-up', id.value]),
    queryFn: () => take(client.GET('/api/follow-ups/{followup_id}', { params: { path: { followup_id: id.value ?? 0 } } })),
    enabled: computed(() => id.value !== null),
  })
}

export function useDay() {
  return useQuery({ queryKey: ['day'], queryFn: () => take(client.GET('/api/day')), refetchInterval: 30_000 })
}

export type Work =
  | { do: 'answer'; body: Schemas['AnswerIn'] }
  | { do: 'wait' }
  | { do: 'put-off'; until: string }
  | { do: 'finish'; outcome: Schemas['FinishIn']['outcome'] }
  | { do: 'take-up' }

function send(id: number, work: Work): Promise<One> {
  const params = { path: { followup_id: id } }
  switch (work.do) {
    case 'answer':
      return take(client.POST('/api/follow-ups/{followup_id}/answer', { params, body: work.body }))
    case 'wait':
      return take(client.POST('/api/follow-ups/{followup_id}/wait', { params }))
    case 'put-off':
      return take(client.POST('/api/follow-ups/{followup_id}/put-off', { params, body: { until: work.until } }))
    case 'finish':
      return take(client.POST('/api/follow-ups/{followup_id}/finish', { params, body: { outcome: work.outcome } }))
    case 'take-up':
      return take(client.POST('/api/follow-ups/{followup_id}/take-up', { params }))
  }
}

export function useWork() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ id, work }: { id: number; work: Work }) => send(id, work),
    onSuccess: (one) => {
      queries.setQueryData(['follow-up', one.id], one)
      return Promise.all([queries.invalidateQueries({ queryKey: ['follow-ups'] }), queries.invalidateQueries({ queryKey: ['day'] })])
    },
  })
}

export type Talk = Schemas['TalkOut']

/** The conversation behind a follow-up; null where there is none. */
export async function readTalk(id: number): Promise<Talk | null> {
  const found = await take(client.GET('/api/follow-ups/{followup_id}/talk', { params: { path: { followup_id: id } } }))
  return 'messages' in found ? found : null
}

export async function tellTyping(id: number): Promise<void> {
  await take(client.POST('/api/follow-ups/{followup_id}/typing', { params: { path: { followup_id: id } } }))
}

export function find(q: string) {
  return take(client.GET('/api/find', { params: { query: { q } } }))
}
