export const SITUATIONS: Record<string, string> = {
  open: 'Open',
  'nobody-free': 'Open, nobody free',
  'after-hours': 'After hours',
  holiday: 'Holiday',
}

/** What can stand in what visitors are told. */
export const REPLY_SLOTS = {
  next_opening: 'when we open',
  closing_time: 'when we close',
  open_now: 'open till …, or when again',
  promise: 'when we answer',
  back_at: 'when somebody is back',
  day_name: 'name of the day',
}
