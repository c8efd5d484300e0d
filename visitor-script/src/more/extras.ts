import { written } from '../clean'
import type { Entry } from '../plan'
import type { Extras } from '../render/types'
import type { World } from '../world'

/**
 * What some parts need besides their document; `code`: the code that stands where nothing has to be sent for
 * it.
 */
export async function extras(
  { outside, visit, store }: World,
  { id, revision }: Entry,
  code: boolean,
): Promise<Extras> {
  const zone = new Intl.DateTimeFormat().resolvedOptions().timeZone
  const body = { touchpoint: id, revision, visitor: visit.secret ? null : store.read().id, code, zone }
  const answer = await outside.post('more', written(body))
  return answer.ok ? ((await answer.json()) as Extras) : {}
}
