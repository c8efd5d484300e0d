import { useSeveral, type Several } from '@/api/follow-ups'
import type { Outcome } from '@/lib/names'
import { useNotices } from '@/lib/notices'

/** Those that one thing is done to: some by their ids, or all that a filter shows. */
export type Whom = Pick<Several, 'ids' | 'all_of'>
type Result = Awaited<ReturnType<ReturnType<typeof useSeveral>['mutateAsync']>>

const count = (n: number) => (n === 1 ? 'one' : String(n))
/** How many are chosen, in words. */
export const saidChosen = (n: number) => `${count(n)} chosen`
const takeUp = (result: Result): Several[] => [{ do: 'take-up', ids: result.done }]

/** One thing done to all that are chosen, with the number said and one undo for all; each says if it was done. */
export function useSeveralWork() {
  const notices = useNotices()
  const several = useSeveral()

  async function act(whom: Whom, body: Several, said: string, back: (result: Result) => Several[]) {
    try {
      const result = await several.mutateAsync({ ...body, ...whom })
      const left = result.left.length
        ? ` ${count(result.left.length)} left as ${result.left.length === 1 ? 'it was' : 'they were'}: ${result.left[0]?.why}`
        : ''
      notices.say(`${count(result.done.length)} ${said}.${left}`, {
        undo: async () => {
          for (const one of back(result)) await several.mutateAsync(one)
        },
      })
      return true
    } catch (problem) {
      notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })
      return false
    }
  }

  return {
    finish: (whom: Whom, outcome: Outcome, said: string) =>
      act(whom, { do: 'finish', outcome }, `finished: ${said}`, takeUp),
    putOff: (whom: Whom, until: string, said: string) =>
      act(whom, { do: 'put-off', until }, `put off until ${said}`, takeUp),
    /** To a member by their name; to everybody without one. */
    give: (whom: Whom, to: number | null, name: string) =>
      act(
        whom,
        { do: 'give', member_id: to },
        to === null ? 'given back to everybody' : `given to ${name}`,
        (result) => {
          const groups = new Map<number | null, number[]>()
          for (const one of result.before)
            groups.set(one.member_id, [...(groups.get(one.member_id) ?? []), one.id])
          return [...groups].map(([member_id, ids]) => ({ do: 'give', ids, member_id }))
        },
      ),
    tag: (whom: Whom, tag: string) =>
      act(whom, { do: 'tag', tag }, `tagged “${tag.trim()}”`, (result) => [
        { do: 'untag', tag, ids: result.done },
      ]),
  }
}
