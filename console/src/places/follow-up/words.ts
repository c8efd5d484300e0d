export const OUTCOMES = {
  answered: 'Answered',
  won: 'Won',
  'not-a-fit': 'Not a fit',
  'no-answer': 'No answer',
  cancelled: 'Cancelled',
  spam: 'Spam',
} as const
export type Outcome = keyof typeof OUTCOMES
