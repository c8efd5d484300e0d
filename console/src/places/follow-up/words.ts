export const OUTCOMES = {
  answered: 'Answered',
  won: 'Won',
  'not-a-fit': 'Not a fit',
  'no-answer': 'No answer',
  cancelled: 'Cancelled',
  spam: 'Spam',
} as const
export type Outcome = keyof typeof OUTCOMES

/** One piece of work, and how it stands. */
export const KINDS = {
  'sign-up': 'Sign-up',
  inquiry: 'Inquiry',
  message: 'Message',
  'call-back': 'Call-back',
  feedback: 'Feedback',
} as const
export const STATES = { 'for-us': 'for us', 'for-them': 'their turn', 'put-off': 'put off', finished: 'finished' } as const

/** What is said of something that was done without a network. */
export const ASIDE = 'There is no connection. It is kept on this device, and goes out as soon as there is one.'
