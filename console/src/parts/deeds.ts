import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { useWork, type One, type Work } from '@/api/follow-ups'
import { useCounter, useMe, useMembers } from '@/api/me'
import { channelsOptions } from '@/api/channels'
import { hoursOptions } from '@/api/hours'
import { useClock } from '@/lib/clock'
import { addDays, formatOf, fromLocal, toLocal } from '@/lib/local'
import { OUTCOMES, type Outcome } from '@/lib/names'
import { useNotices } from '@/lib/notices'
import { ASIDE } from '@/lib/outbox'
import { saidTime } from '@/lib/time'
import { opened, picked, type Choice } from './find'
import { saidChosen, useSeveralWork } from './several'

const AWAY = [
  ['15-minutes', 'Away for 15 minutes'],
  ['1-hour', 'Away for an hour'],
  ['next-opening', 'Away until we open next'],
  ['until-said', 'Away until I say so'],
] as const

/**
 * What can be done from where one is: to oneself, and to the follow-up that is open or to all that are
 * chosen; and hours and channels by name.
 */
export function useDeeds(open: Ref<boolean>) {
  const queries = useQueryClient()
  const counter = useCounter()
  const work = useWork()
  const many = useSeveralWork()
  const notices = useNotices()
  const { data: me } = useMe()
  const { data: members } = useMembers()
  const { zone, now } = useClock()
  const { data: hours } = useQuery({ ...hoursOptions, enabled: open })
  const { data: channels } = useQuery({ ...channelsOptions, enabled: open })
  const failed = (problem: unknown) =>
    notices.say(problem instanceof Error ? problem.message : 'This did not work.', { bad: true })

  const one = computed(() => {
    return open.value && opened.value ? queries.getQueryData<One>(['follow-up', opened.value]) : undefined
  })
  async function toAll(done: Promise<boolean>) {
    if (await done) picked.value = new Set()
  }
  async function act(id: number, what: Work, said: string) {
    try {
      const done = await work.mutateAsync({ id, work: what })
      notices.say(
        done ? said : ASIDE,
        done ? { undo: () => work.mutateAsync({ id, work: { do: 'take-up' } }) } : {},
      )
    } catch (problem) {
      failed(problem)
    }
  }
  /** The next seven days, each at the clock time at which it opens next. */
  function days(opening: string | null, putOff: (until: string, said: string) => void): Choice[] {
    const opens = toLocal(opening ?? now.value.toISOString(), zone.value).slice(11, 16)
    return [1, 2, 3, 4, 5, 6, 7].flatMap((ahead) => {
      const day = addDays(toLocal(now.value.toISOString(), zone.value).slice(0, 10), ahead)
      const until = fromLocal(`${day}T${opens}`, zone.value)
      if (!until) return []
      const name = formatOf('en-GB', zone.value, { weekday: 'long' }).format(new Date(until))
      const said = saidTime(until, now.value, zone.value)
      return {
        key: `off${ahead}`,
        name: `Put off until ${ahead === 1 ? `tomorrow, ${name}` : name}`,
        about: said,
        words: 'later remind set aside',
        run: () => putOff(until, said),
      }
    })
  }
  /** Putting off, finishing, giving: to whom it is done stands beside each. */
  function theirs(
    about: string,
    opening: string | null,
    does: {
      putOff: (until: string, said: string) => void
      finish: (outcome: Outcome, said: string) => void
      give: (member: number, name: string) => void
    },
  ): Choice[] {
    return [
      ...days(opening, does.putOff),
      ...Object.entries(OUTCOMES).map(([outcome, words]) => ({
        key: `end${outcome}`,
        name: `Finish: ${words.toLowerCase()}`,
        about,
        words: outcome === 'answered' ? 'close done end reached called' : 'close done end',
        run: () => does.finish(outcome as Outcome, words.toLowerCase()),
      })),
      ...(members.value ?? []).map((member) => ({
        key: `give${member.id}`,
        name: `Give to ${member.name || member.email}`,
        about,
        words: 'assign hand over',
        run: () => does.give(member.id, member.name || member.email),
      })),
    ]
  }
  const toOne = ({ id, called, next_opening }: One): Choice[] =>
    theirs(called, next_opening ?? null, {
      putOff: (until, said) => void act(id, { do: 'put-off', until }, `Put off until ${said}.`),
      finish: (outcome, said) => void act(id, { do: 'finish', outcome }, `Finished: ${said}.`),
      give: (member, name) =>
        void work
          .mutateAsync({ id, work: { do: 'give', member } })
          .then(() => notices.say(`Given to ${name}.`), failed),
    })
  function toChosen(person: One | undefined): Choice[] {
    const whom = { ids: [...picked.value] }
    return theirs(saidChosen(whom.ids.length), person?.next_opening ?? null, {
      putOff: (until, said) => void toAll(many.putOff(whom, until, said)),
      finish: (outcome, said) => void toAll(many.finish(whom, outcome, said)),
      give: (member, name) => void toAll(many.give(whom, member, name)),
    })
  }
  return computed<Choice[]>(() => {
    const person = one.value
    const away: Choice[] = AWAY.map(([until, name]) => ({
      key: `away${until}`,
      name,
      about: 'Do',
      words: 'counter break lunch leave',
      run: () => counter.mutate({ away: true, until }, { onError: failed }),
    }))
    if (me.value?.member?.away)
      away.push({
        key: 'here',
        name: 'I am at the counter',
        about: 'Do',
        words: 'back here',
        run: () => counter.mutate({ away: false, until: 'until-said' }, { onError: failed }),
      })
    return [
      ...(picked.value.size ? toChosen(person) : person && person.state !== 'finished' ? toOne(person) : []),
      ...away,
      ...(hours.value ? [hours.value.main, ...hours.value.others] : []).map((set) => ({
        key: `hr${set.id}`,
        name: set.name,
        about: 'Hours',
        words: 'opening week',
        go: `/hours?set=${set.id}`,
      })),
      ...(channels.value?.channels ?? []).map((channel) => ({
        key: `ch${channel.id}`,
        name: channel.document.label,
        about: 'Channel',
        words: 'contact link qr',
        go: `/hours/channels/${channel.id}`,
      })),
    ]
  })
}
