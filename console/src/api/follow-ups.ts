import {
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
  type InfiniteData,
  type QueryClient,
} from '@tanstack/vue-query'
import { useDocumentVisibility, useIntervalFn } from '@vueuse/core'
import { computed, watch, type Ref } from 'vue'
import { putAside, type Waiting } from '@/lib/outbox'
import { client, Failure, sendFile, take, type Schemas } from './client'

export type Item = Schemas['ItemOut']
export type One = Schemas['OneOut']

/**
 * What the list shows: what is not said does not narrow it. `member` and `touchpoint` 0 are nobody and none.
 */
export type Wanted = Partial<Schemas['ListFilter']>

/** Since when this page of the console is open: what is older was read from the device. */
const SINCE = Date.now()

/** The stamp of the list that was read last; none once it was said to have changed. */
let listStamp = ''

export function useFollowUps(wanted: Ref<Wanted>) {
  const queries = useQueryClient()
  return useInfiniteQuery({
    queryKey: computed(() => ['follow-ups', wanted.value]),
    queryFn: async ({ pageParam, queryKey }) => {
      // A page that is read anew ends where it ended: what has come in before never pushes a row off it.
      const state = queries.getQueryState<InfiniteData<Schemas['ListOut'], string>>(queryKey)
      const shown = state && state.dataUpdatedAt >= SINCE ? state.data : undefined
      const before = shown?.pages[shown.pageParams.indexOf(pageParam)]
      const query = { ...wanted.value, after: pageParam, through: before?.through ?? undefined }
      const page = await take(client.GET('/api/follow-ups', { params: { query } }))
      // What came while it was being read may not be in it: the next look tells.
      if (!pageParam) listStamp = page.stamp
      return page
    },
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
      if ((last && now !== last) || (listStamp && now !== listStamp)) {
        listStamp = ''
        changed?.()
        for (const key of ['follow-ups', 'follow-up', 'day', 'first-steps'])
          void queries.invalidateQueries({ queryKey: [key] })
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
    queryFn: () =>
      take(client.GET('/api/follow-ups/{followup_id}', { params: { path: { followup_id: id.value ?? 0 } } })),
    enabled: computed(() => id.value !== null),
    // Opened, it shows what is known now; and what becomes of a mail is no change of the list.
    staleTime: 0,
    refetchInterval: 15_000,
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
  | { do: 'invitation'; event: number; says: Schemas['InvitationIn']['says'] }
  | { do: 'give'; member: number | null }
  | { do: 'note'; text: string }
  | { do: 'tag'; tag: string; on: boolean }

/** What a device says of something that it did without a network. */
interface Device {
  once: string
  seen: number | null
}
function send(id: number, work: Work, device?: Device): Promise<One> {
  const params = { path: { followup_id: id } }
  const headers = device
    ? {
        'X-Intavo-Once': device.once,
        ...(device.seen === null ? {} : { 'X-Intavo-Seen': String(device.seen) }),
      }
    : {}
  switch (work.do) {
    case 'answer':
      return take(client.POST('/api/follow-ups/{followup_id}/answer', { params, headers, body: work.body }))
    case 'wait':
      return take(client.POST('/api/follow-ups/{followup_id}/wait', { params, headers }))
    case 'put-off':
      return take(
        client.POST('/api/follow-ups/{followup_id}/put-off', {
          params,
          headers,
          body: { until: work.until },
        }),
      )
    case 'finish':
      return take(
        client.POST('/api/follow-ups/{followup_id}/finish', {
          params,
          headers,
          body: { outcome: work.outcome },
        }),
      )
    case 'take-up':
      return take(client.POST('/api/follow-ups/{followup_id}/take-up', { params }))
    case 'take-back':
      return take(client.POST('/api/follow-ups/{followup_id}/take-back', { params, body: { key: work.key } }))
    case 'invitation':
      return take(
        client.POST('/api/follow-ups/{followup_id}/invitations/{event_id}', {
          params: { path: { ...params.path, event_id: work.event } },
          body: { says: work.says },
        }),
      )
    case 'give':
      return take(
        client.POST('/api/follow-ups/{followup_id}/give', { params, body: { member_id: work.member } }),
      )
    case 'note':
      return take(
        client.POST('/api/follow-ups/{followup_id}/note', { params, headers, body: { text: work.text } }),
      )
    case 'tag':
      return take(
        client.POST('/api/follow-ups/{followup_id}/tag', { params, body: { tag: work.tag, on: work.on } }),
      )
  }
}

// What can be done without a network, in the words that say that it waits.
const WAITS: Partial<Record<Work['do'], (work: Work) => string>> = {
  answer: (work) => `Answer: “${work.do === 'answer' ? work.body.text : ''}”`,
  note: (work) => `Note: “${work.do === 'note' ? work.text : ''}”`,
  'put-off': () => 'Put off',
  wait: () => 'Left to them',
  finish: () => 'Finished',
}

/** Sends what waited for a network, and shows what came of it. */
export function sendWaiting(queries: QueryClient) {
  return async (one: Waiting, seen: number | null) => {
    const now = await send(one.id, one.work as Work, { once: one.once, seen })
    queries.setQueryData(['follow-up', one.id], now)
    for (const key of ['follow-ups', 'day']) void queries.invalidateQueries({ queryKey: [key] })
  }
}

/** Works a follow-up; null where there is no network, and it waits on the device. */
export function useWork() {
  const queries = useQueryClient()
  return useMutation({
    networkMode: 'always',
    mutationFn: async ({ id, work }: { id: number; work: Work }) => {
      try {
        return await send(id, work)
      } catch (problem) {
        const known = queries.getQueryData<One>(['follow-up', id])
        const words = WAITS[work.do]
        if (!(problem instanceof Failure) || problem.status !== 0 || !words || !known) throw problem
        const seen = Math.max(0, ...known.timeline.map((event) => event.id))
        await putAside({ id, called: known.called, words: words(work), work, seen })
        return null
      }
    },
    onSuccess: async (one) => {
      if (!one) return
      // What is being read just now may be older than what has been done.
      await queries.cancelQueries({ queryKey: ['follow-up', one.id] })
      queries.setQueryData(['follow-up', one.id], one)
      // Not waited for: whoever did it goes on at once.
      for (const key of ['follow-ups', 'day']) void queries.invalidateQueries({ queryKey: [key] })
    },
  })
}

export type Talk = Schemas['TalkOut']

/** The conversation behind a follow-up; null where there is none. */
export async function readTalk(id: number): Promise<Talk | null> {
  const found = await take(
    client.GET('/api/follow-ups/{followup_id}/talk', { params: { path: { followup_id: id } } }),
  )
  return 'messages' in found ? found : null
}

export async function tellTyping(id: number): Promise<void> {
  await take(client.POST('/api/follow-ups/{followup_id}/typing', { params: { path: { followup_id: id } } }))
}

/** Says that one is at a follow-up, and keeps what is being written (null: as it was); who else is at it. */
export function sitDown(id: number, draft: string | null, writing: boolean) {
  return take(
    client.POST('/api/follow-ups/{followup_id}/desk', {
      params: { path: { followup_id: id } },
      body: { draft, writing },
    }),
  )
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
    mutationFn: (body: Several) =>
      take(client.POST('/api/several-follow-ups', { body: body as Schemas['SeveralIn'] })),
    onSuccess: () =>
      Promise.all(
        ['follow-ups', 'follow-up', 'day'].map((key) => queries.invalidateQueries({ queryKey: [key] })),
      ),
  })
}

export type Batch = Schemas['BatchOut']

/** What was done to several within the last day, the last first; each can be taken back once. */
export const useDoneLately = () =>
  useQuery({
    queryKey: ['follow-ups', 'done-lately'],
    queryFn: () => take(client.GET('/api/several-follow-ups')),
  })

/** Take back what was done to several, of each that nobody touched since. */
export function useUndoSeveral() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (batch_id: number) =>
      take(client.POST('/api/several-follow-ups/{batch_id}/undo', { params: { path: { batch_id } } })),
    onSuccess: () =>
      Promise.all(
        ['follow-ups', 'follow-up', 'day', 'tags'].map((key) =>
          queries.invalidateQueries({ queryKey: [key] }),
        ),
      ),
  })
}

/** How many a filter shows, asked only where `when`. */
export const useCountOf = (wanted: Ref<Wanted>, when: Ref<boolean>) =>
  useQuery({
    queryKey: computed(() => ['follow-ups', 'count', wanted.value]),
    queryFn: () => take(client.GET('/api/follow-ups-count', { params: { query: wanted.value } })),
    enabled: when,
    staleTime: 0,
  })

export const useTags = () => useQuery({ queryKey: ['tags'], queryFn: () => take(client.GET('/api/tags')) })

/** What came in from people after an entry of any timeline. */
export const readArrivals = (after?: number) =>
  take(client.GET('/api/arrivals', { params: { query: { after: after ?? null } } }))

export type Told = Schemas['WishesOut']

/** What one is told, and how. */
export function useTold() {
  const queries = useQueryClient()
  const found = useQuery({
    queryKey: ['told'],
    queryFn: () => take(client.GET('/api/me/told')),
    staleTime: 60_000,
  })
  const change = async (body: Told) => {
    queries.setQueryData(['told'], await take(client.PUT('/api/me/told', { body })))
    await queries.invalidateQueries({ queryKey: ['day'] })
  }
  return { told: found.data, change }
}

/** How follow-ups came so far. */
export const useWaysIn = () =>
  useQuery({ queryKey: ['ways-in'], queryFn: () => take(client.GET('/api/ways-in')), staleTime: 60_000 })

export type KeptFilter = Schemas['KeptFilterOut']

export function useKeptFilters() {
  const queries = useQueryClient()
  const found = useQuery({ queryKey: ['kept-filters'], queryFn: () => take(client.GET('/api/kept-filters')) })
  const again = () => queries.invalidateQueries({ queryKey: ['kept-filters'] })
  return {
    filters: found.data,
    keep: async (name: string, wanted: Wanted, for_all: boolean) => {
      await take(
        client.POST('/api/kept-filters', { body: { name, wanted: { state: 'open', ...wanted }, for_all } }),
      )
      await again()
    },
    drop: async (filter_id: number) => {
      await take(client.DELETE('/api/kept-filters/{filter_id}', { params: { path: { filter_id } } }))
      await again()
    },
  }
}

export type KeptAnswer = Schemas['KeptAnswerOut']

export type Enclosure = Schemas['EnclosureOut']

/** Takes a file up that is to go with an answer. */
export const enclose = (file: File) =>
  sendFile<Enclosure>('/api/enclosures', file, 'This file could not be taken up.')
export const leaveOut = (enclosure_id: number) =>
  take(client.DELETE('/api/enclosures/{enclosure_id}', { params: { path: { enclosure_id } } }))

/** The answer that is kept for what somebody most likely asks. */
export function useProposed(id: Ref<number>) {
  return useQuery({
    queryKey: computed(() => ['proposed', id.value]),
    queryFn: () =>
      take(
        client.GET('/api/follow-ups/{followup_id}/proposed', { params: { path: { followup_id: id.value } } }),
      ),
    staleTime: 60_000,
  })
}

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
