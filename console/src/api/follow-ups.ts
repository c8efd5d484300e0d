import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { useDocumentVisibility, useIntervalFn } from '@vueuse/core'
import { computed, watch, type Ref } from 'vue'
import { client, take, type Schemas } from './client'

export type Item = Schemas['ItemOut']
export type One = Schemas['OneOut']

/** What the list shows: what is not said does not narrow it. `member` and `touchpoint` 0 are nobody and none. */
export interface Wanted {
  state?: 'open' | 'for-us' | 'for-them' | 'put-off' | 'finished'
  kind?: 'sign-up' | 'inquiry' | 'call-back' | 'feedback' | 'message'
  touchpoint?: number
  member?: number
  via?: string
  site?: number
  page?: string
  tag?: string
  since?: string
  untouched?: number
  q?: string
}

export function useFollowUps(wanted: Ref<Wanted>) {
  return useInfiniteQuery({
    queryKey: computed(() => ['follow-ups', wanted.value]),
    queryFn: ({ pageParam }) => take(client.GET('/api/follow-ups', { params: { query: { ...wanted.value, after: pageParam } } })),
    initialPageParam: '',
    getNextPageParam: (last) => last.after ?? undefined,
    placeholderData: (before) => before,
    refetchInterval: 60_000,
  })
}

const LOOK = 4_000
const LOOK_AWAY = 60_000

/** Looks every few seconds whether anything of the list has changed, once a minute where nobody looks. */
export function useLive(changed?: () => void) {
  const queries = useQueryClient()
  const seen = useDocumentVisibility()
  let last = ''
  let asked = 0
  async function look() {
    if (seen.value === 'hidden' && Date.now() - asked < LOOK_AWAY) return
    asked = Date.now()
    try {
      const now = await take(client.GET('/api/follow-ups-stamp'))
      if (last && now !== last) {
        changed?.()
        for (const key of ['follow-ups', 'follow-up', 'day', 'first-steps']) void queries.invalidateQueries({ queryKey: [key] })
      }
      last = now
    } catch {
      // Looked again in a moment.
    }
  }
  useIntervalFn(() => void look(), LOOK, { immediateCallback: true })
  watch(seen, (now) => now === 'visible' && void look())
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
  | { do: 'take-back'; key: string }
  | { do: 'give'; member: number | null }
  | { do: 'note'; text: string }
  | { do: 'tag'; tag: string; on: boolean }

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
    case 'take-back':
      return take(client.POST('/api/follow-ups/{followup_id}/take-back', { params, body: { key: work.key } }))
    case 'give':
      return take(client.POST('/api/follow-ups/{followup_id}/give', { params, body: { member_id: work.member } }))
    case 'note':
      return take(client.POST('/api/follow-ups/{followup_id}/note', { params, body: { text: work.text } }))
    case 'tag':
      return take(client.POST('/api/follow-ups/{followup_id}/tag', { params, body: { tag: work.tag, on: work.on } }))
  }
}

export function useWork() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ id, work }: { id: number; work: Work }) => send(id, work),
    onSuccess: (one) => {
      queries.setQueryData(['follow-up', one.id], one)
      // Not waited for: whoever did it goes on at once.
      for (const key of ['follow-ups', 'day']) void queries.invalidateQueries({ queryKey: [key] })
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

/** Says that one is at a follow-up, and keeps what is being written (null: as it was); who else is at it. */
export function sitDown(id: number, draft: string | null, writing: boolean) {
  return take(client.POST('/api/follow-ups/{followup_id}/desk', { params: { path: { followup_id: id } }, body: { draft, writing } }))
}
export async function getUp(id: number): Promise<void> {
  await take(client.DELETE('/api/follow-ups/{followup_id}/desk', { params: { path: { followup_id: id } } }))
}

export function find(q: string) {
  return take(client.GET('/api/find', { params: { query: { q } } }))
}

export type Several = Partial<Schemas['SeveralIn']> & { do: Schemas['SeveralIn']['do'] }

/** One thing done to several. */
export function useSeveral() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Several) => take(client.POST('/api/several-follow-ups', { body: body as Schemas['SeveralIn'] })),
    onSuccess: () => Promise.all(['follow-ups', 'follow-up', 'day'].map((key) => queries.invalidateQueries({ queryKey: [key] }))),
  })
}

export const useTags = () => useQuery({ queryKey: ['tags'], queryFn: () => take(client.GET('/api/tags')) })

/** What came in from people after an entry of any timeline. */
export const readArrivals = (after?: number) => take(client.GET('/api/arrivals', { params: { query: { after: after ?? null } } }))

export type Told = Schemas['WishesOut']

/** What one is told, and how. */
export function useTold() {
  const queries = useQueryClient()
  const found = useQuery({ queryKey: ['told'], queryFn: () => take(client.GET('/api/me/told')), staleTime: 60_000 })
  const change = async (body: Told) => {
    queries.setQueryData(['told'], await take(client.PUT('/api/me/told', { body })))
    await queries.invalidateQueries({ queryKey: ['day'] })
  }
  return { told: found.data, change }
}

/** How follow-ups came so far. */
export const useWaysIn = () => useQuery({ queryKey: ['ways-in'], queryFn: () => take(client.GET('/api/ways-in')), staleTime: 60_000 })

export type KeptFilter = Schemas['KeptFilterOut']

export function useKeptFilters() {
  const queries = useQueryClient()
  const found = useQuery({ queryKey: ['kept-filters'], queryFn: () => take(client.GET('/api/kept-filters')) })
  const again = () => queries.invalidateQueries({ queryKey: ['kept-filters'] })
  return {
    filters: found.data,
    keep: async (name: string, wanted: Wanted, for_all: boolean) => {
      await take(client.POST('/api/kept-filters', { body: { name, wanted: { state: 'open', ...wanted }, for_all } }))
      await again()
    },
    drop: async (filter_id: number) => {
      await take(client.DELETE('/api/kept-filters/{filter_id}', { params: { path: { filter_id } } }))
      await again()
    },
  }
}

export type KeptAnswer = Schemas['KeptAnswerOut']

/** The answers kept for all and one's own, filled for the person of a follow-up. */
export function useKeptAnswers(id: Ref<number>) {
  const queries = useQueryClient()
  const found = useQuery({
    queryKey: computed(() => ['kept-answers', id.value]),
    queryFn: () => take(client.GET('/api/kept-answers', { params: { query: { followup_id: id.value } } })),
  })
  const again = () => queries.invalidateQueries({ queryKey: ['kept-answers'] })
  return {
    answers: found.data,
    keep: async (answer_id: number | null, body: Schemas['KeptText']) => {
      await take(
        answer_id === null
          ? client.POST('/api/kept-answers', { body })
          : client.PUT('/api/kept-answers/{answer_id}', { params: { path: { answer_id } }, body }),
      )
      await again()
    },
    forget: async (answer_id: number) => {
      await take(client.DELETE('/api/kept-answers/{answer_id}', { params: { path: { answer_id } } }))
      await again()
    },
  }
}
