import names from '@/api/names.json'

/** The words for what has fixed values, as the server says them. */
export const OUTCOMES = names.outcomes
export type Outcome = keyof typeof OUTCOMES
export const KINDS = names.kinds
export const STATES = names.states
export const ONE_OF_A_KIND = names.oneOfAKind
export const WAYS = names.ways
export const DEEDS = names.deeds
export const COLOURS = names.colours
export const CHANNEL_ICONS: Record<string, string> = names.channelIcons
export const WEEKDAYS = names.weekdays
export type Weekday = keyof typeof WEEKDAYS
export const SHORT_WEEKDAYS = names.shortWeekdays

/** What the list can be asked for; everything where nothing is said. */
export const ALL_OF_A_KIND: Record<string, string> = { '': 'everything', ...names.allOfAKind }
const { open, ...states } = names.askedFor
export const ASKED_FOR: Record<string, string> = { '': open, ...states }
