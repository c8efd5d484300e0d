import { useSeveral, useUndoSeveral, type Several } from '@/api/follow-ups'
import type { Outcome } from '@/lib/names'
import { useNotices } from '@/lib/notices'

/** Those that one thing is done to: some by their ids, or all that a filter shows. */
export type Whom = Pick<Several, 'ids' | 'all_of'>
type Left = Awaited<ReturnType<ReturnType<typeof useSeveral>['mutateAsync']>>['left']

const count = (n: number) => (n === 1 ? 'one' : n.toLocaleString('en-GB'))
/** How many are chosen, in words. */
export const saidChosen = (n: number) => `${count(n)} chosen`
const saidLeft = (left: Left) =>
  left.length
    ? ` ${count(left.length)} left as ${left.length === 1 ? 'it was' : 'they were'}: ${left[0]?.why}`
    : ''

/** Takes back what was done to several, and says of how many. */
export function useTakeBack() {
  const notices = useNotices()
  const undo = useUndoSeveral()
  return async (batch: number) => {
    try {
      const result = await undo.mutateAsync(batch)
      if (result.left.length) notices.say(`${count(result.done.length)} taken back.${saidLeft(result.left)}`)
    } catch (problem) {
      notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
    }
  }
}

/** One thing done to all that are chosen, with the number said and one undo for all; each says if it was done. */
export function useSeveralWork() {
  const notices = useNotices()
  const several = useSeveral()
  const takeBack = useTakeBack()

  async function act(whom: Whom, body: Several, said: string) {
    try {
      const { done, left, batch } = await several.mutateAsync({ ...body, ...whom })
      notices.say(
        `${count(done.length)} ${said}.${saidLeft(left)}`,
        batch && body.do !== 'take-up' ? { undo: () => takeBack(batch) } : {},
      )
      return true
    } catch (problem) {
      notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
      return false
    }
  }

  return {
    finish: (whom: Whom, outcome: Outcome, said: string) =>
      act(whom, { do: 'finish', outcome }, `finished: ${said}`),
    putOff: (whom: Whom, until: string, said: string) =>
      act(whom, { do: 'put-off', until }, `put off until ${said}`),
    takeUp: (whom: Whom) => act(whom, { do: 'take-up' }, 'for us again'),
    /** To a member by their name; to everybody without one. */
    give: (whom: Whom, to: number | null, name: string) =>
      act(whom, { do: 'give', member_id: to }, to === null ? 'given back to everybody' : `given to ${name}`),
    tag: (whom: Whom, tag: string) => act(whom, { do: 'tag', tag }, `tagged “${tag.trim()}”`),
  }
}
