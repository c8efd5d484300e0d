import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { client, Failure, take, type Schemas } from './client'

export type Site = Schemas['SiteOut']

export const sitesOptions = queryOptions({
  queryKey: ['sites'],
  queryFn: () => take(client.GET('/api/sites')),
})
/** Looked at again and again, to see when the script arrives on one. */
export const useSites = () => useQuery({ ...sitesOptions, refetchInterval: 10_000 })
/** As they were read last. */
export const useKnownSites = () => useQuery({ ...sitesOptions, staleTime: 60_000 })

export function useAddSite() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (body: Schemas['SiteIn']) => take(client.POST('/api/sites', { body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export function useChangeSite() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: ({ id, ...body }: Schemas['SiteEditIn'] & { id: number }) =>
      take(client.PUT('/api/sites/{site_id}', { params: { path: { site_id: id } }, body })),
    onSuccess: () => queries.invalidateQueries(),
  })
}

export async function setHouse(site_id: number, body: Schemas['HouseIn']): Promise<Site> {
  return take(client.PUT('/api/sites/{site_id}/house', { params: { path: { site_id } }, body }))
}

export async function setRules(site_id: number, body: Schemas['RulesIn']): Promise<Site> {
  return take(client.PUT('/api/sites/{site_id}/rules', { params: { path: { site_id } }, body }))
}

/** The pages that the script has seen on a site. */
export function usePages(site: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: computed(() => ['pages', toValue(site)]),
    queryFn: () =>
      take(client.GET('/api/sites/{site_id}/pages', { params: { path: { site_id: toValue(site) } } })),
    enabled: computed(() => toValue(site) > 0),
  })
}

/** Where visits came from, the most frequent first. */
export function useSources(site: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: computed(() => ['sources', toValue(site)]),
    queryFn: () =>
      take(client.GET('/api/sites/{site_id}/sources', { params: { path: { site_id: toValue(site) } } })),
    enabled: computed(() => toValue(site) > 0),
  })
}

/** Reports of the last week that were not counted, by why. */
export function useRefused(site: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: computed(() => ['refused', toValue(site)]),
    queryFn: () =>
      take(client.GET('/api/sites/{site_id}/refused', { params: { path: { site_id: toValue(site) } } })),
  })
}

/** Which of them a sentence is for; one that cannot be read yet is for none. */
export async function matchingPages(
  site_id: number,
  sentence: object,
): Promise<Schemas['MatchingOut'] | null> {
  try {
    return await take(
      client.POST('/api/sites/{site_id}/matching', {
        params: { path: { site_id } },
        body: { sentence } as Schemas['SentenceIn'],
      }),
    )
  } catch (problem) {
    if (problem instanceof Failure && problem.status === 422) return null
    throw problem
  }
}

/** How to put the line in, in words for whoever keeps the site. */
export async function instructionsText(site_id: number): Promise<string> {
  return (await take(client.GET('/api/sites/{site_id}/instructions', { params: { path: { site_id } } }))).text
}

export async function sendInstructions(site_id: number, to: string): Promise<void> {
  await take(
    client.POST('/api/sites/{site_id}/instructions', { params: { path: { site_id } }, body: { to } }),
  )
}
