import { useQuery } from '@tanstack/vue-query'
import { client, take } from './client'

/** Looked at again and again, since they are done elsewhere. */
export function useFirstSteps() {
  return useQuery({
    queryKey: ['first-steps'],
    queryFn: () => take(client.GET('/api/first-steps')),
    refetchInterval: 5000,
  })
}

export async function putStepsAway(): Promise<void> {
  await take(client.DELETE('/api/first-steps'))
}

/** The hours are right as they are. */
export async function looksRight(): Promise<void> {
  await take(client.POST('/api/hours/looked-at'))
}
