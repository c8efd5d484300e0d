import type { Summary } from '@/api/touchpoints'
import { PURPOSES, STANCES } from './words'

const STATES = {
  live: ['●', 'On', 'text-moss'],
  off: ['○', 'Turned off', 'text-ink-2'],
  draft: ['✎', 'Made, not on', 'text-brass'],
} as const
/** Its mark, its state in words, and the colour of both. */
export const stateOf = (row: Summary): readonly [string, string, string] => {
  if (row.state !== 'live') return STATES[row.state as keyof typeof STATES]
  if (row.over) return ['◔', 'Ended', 'text-brass']
  return row.begins ? ['◔', row.begins.replace(/^f/, 'F'), 'text-brass'] : STATES.live
}

/** What it asks for, and how it stands. */
export const calledWhat = (row: Summary) =>
  `${PURPOSES[row.purpose as keyof typeof PURPOSES]} · ${STANCES[row.stance as keyof typeof STANCES].toLowerCase()}`
