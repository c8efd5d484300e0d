import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { client, take, type Schemas } from './client'

export type Aside = Schemas['AsideOut']

/** Mail that came in and is not on the list, with these words in it. */
export function useAside(q: Ref<string>) {
  return useQuery({
    queryKey: computed(() => ['mail-aside', q.value]),
    queryFn: () => take(client.GET('/api/mail-aside', { params: { query: { q: q.value } } })),
    placeholderData: (before) => before,
    refetchInterval: 30_000,
  })
}

export async function lookedThrough(through: number): Promise<void> {
  await take(client.POST('/api/mail-aside/looked', { body: { through } }))
}

/** Puts it on the list; the follow-up that it is now. */
export async function takeUp(mail_id: number): Promise<number> {
  const done = await take(client.POST('/api/mail-aside/{mail_id}/take-up', { params: { path: { mail_id } } }))
  return done.followup_id
}
