import type { Deed } from '@/api/rehearsals'

/** What can be done, and how it is said. */
export const DOES: Record<
  Deed['do'],
  { name: string; fresh: () => Omit<Deed, 'at'>; field?: 'url' | 'to' | 'on' | 'touchpoint'; hint?: string }
> = {
  page: {
    name: 'opens the page',
    fresh: () => ({ do: 'page', url: '/', screens: 3 }),
    field: 'url',
    hint: '/trips',
  },
  scroll: { name: 'scrolls to, in %', fresh: () => ({ do: 'scroll', to: 45 }), field: 'to' },
  click: { name: 'clicks', fresh: () => ({ do: 'click', on: '' }), field: 'on', hint: 'anywhere' },
  see: {
    name: 'comes to the element',
    fresh: () => ({ do: 'see', on: 'footer' }),
    field: 'on',
    hint: 'footer',
  },
  move: { name: 'moves the pointer', fresh: () => ({ do: 'move' }) },
  exit: { name: 'heads for the exit', fresh: () => ({ do: 'exit' }) },
  close: { name: 'closes what opened', fresh: () => ({ do: 'close' }) },
  answer: { name: 'answers what opened', fresh: () => ({ do: 'answer' }) },
  open: {
    name: 'opens by a click',
    fresh: () => ({ do: 'open', touchpoint: '' }),
    field: 'touchpoint',
    hint: 'short name',
  },
  settle: { name: 'settles the site’s own notice', fresh: () => ({ do: 'settle' }) },
  gone: { name: 'leaves the site', fresh: () => ({ do: 'gone' }) },
}

/** "0:14", "1:02:10", "2 d 3:00:00" */
export function sayTime(seconds: number): string {
  const days = Math.floor(seconds / 86400)
  const [hours, minutes, rest] = [
    Math.floor((seconds % 86400) / 3600),
    Math.floor((seconds % 3600) / 60),
    Math.floor(seconds % 60),
  ]
  const two = (one: number) => String(one).padStart(2, '0')
  const clock = hours || days ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`
  return days ? `${days} d ${clock}` : clock
}

/** Seconds from "14", "0:14", "1:02:10" or "2 d 3:00:00"; null if it cannot be read. */
export function readTime(text: string): number | null {
  const found = /^(?:(\d+)\s*d\s*)?(?:(?:(\d+):)?(\d+):)?(\d+(?:\.\d+)?)$/.exec(text.trim())
  if (!found) return null
  const [days, hours, minutes, seconds] = found.slice(1).map((one) => Number(one ?? 0))
  return (days ?? 0) * 86400 + (hours ?? 0) * 3600 + (minutes ?? 0) * 60 + (seconds ?? 0)
}

export interface Axis {
  /** Where a moment lies, from 0 to 1. */
  place: (at: number) => number
  /** The moment at a place. */
  time: (place: number) => number
}

/**
 * An axis on which every stretch can be seen: time runs evenly within a stretch between two marks, but a long
 * one (a night between two visits) is no wider than `widest` seconds, and a short one no narrower than
 * `least`.
 */
export function axis(marks: number[], length: number, least = 4, widest = 40): Axis {
  const sorted = [...new Set([0, ...marks.filter((one) => one > 0 && one < length), length])].sort(
    (a, b) => a - b,
  )
  const widths = sorted.slice(1).map((one, at) => Math.min(widest, Math.max(least, one - (sorted[at] ?? 0))))
  const whole = widths.reduce((sum, one) => sum + one, 0) || 1
  const starts = widths.reduce<number[]>(
    (all, one) => [...all, (all[all.length - 1] ?? 0) + one / whole],
    [0],
  )
  const part = (of: number[], value: number) => {
    const at = of.findIndex((one, index) => value >= one && value <= (of[index + 1] ?? Infinity))
    return Math.min(Math.max(at, 0), Math.max(of.length - 2, 0))
  }
  const between = (from: number[], to: number[], value: number) => {
    const at = part(from, value)
    const [a, b, c, d] = [from[at] ?? 0, from[at + 1] ?? 1, to[at] ?? 0, to[at + 1] ?? 1]
    return b === a ? c : c + ((Math.min(Math.max(value, a), b) - a) / (b - a)) * (d - c)
  }
  return { place: (at) => between(sorted, starts, at), time: (place) => between(starts, sorted, place) }
}
