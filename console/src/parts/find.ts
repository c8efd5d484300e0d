import { ref, watch } from 'vue'

/** Whether the box that finds or does anything is open. */
export const finding = ref(false)

let held: string[] | null = null
function hold(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey || (event.key.length > 1 && event.key !== 'Enter'))
    return
  event.preventDefault()
  event.stopImmediatePropagation()
  held?.push(event.key)
}

/** Opens the box; what is typed before it is there is kept for it. */
export function openBox() {
  if (finding.value) return
  finding.value = true
  held = []
  addEventListener('keydown', hold, true)
}

/** What was typed since the box was asked for, and nothing more is kept: it is there, or it does not come. */
export function typedSince(): string[] {
  removeEventListener('keydown', hold, true)
  const keys = held ?? []
  held = null
  return keys
}
watch(finding, (open) => open || typedSince())

/** Whether the list of keys is open. */
export const helping = ref(false)

/** The follow-up that is on the screen, chosen or not. */
export const opened = ref<number | null>(null)

/** The follow-ups that are chosen, to do one thing to all of them. */
export const picked = ref(new Set<number>())

export interface Choice {
  key: string
  name: string
  about: string
  /** Where it leads; else what it does. */
  go?: string
  run?: () => void
  /** Other words by which it is found. */
  words?: string
  /** Offered before anything is typed. */
  main?: boolean
}

const to = (key: string, name: string, about: string, go: string, words = '', main = false): Choice => ({
  key,
  name,
  about,
  go,
  words,
  main,
})

/** Places, settings and help, by any of their words. */
export const PLACES: Choice[] = [
  to('f', 'Follow-up', 'Go to', '/follow-up', 'list work inbox answers due late inquiries leads', true),
  to('t', 'Touchpoints', 'Go to', '/touchpoints', 'map pop-up bar button card form pages', true),
  to('n', 'New touchpoint', 'Do', '/touchpoints?new', 'make add create starter', true),
  to('r', 'Rehearse a visit', 'Do', '/touchpoints/rehearse', 'try test why not show visitor preview'),
  to(
    'h',
    'Hours and promise',
    'Go to',
    '/hours',
    'opening closed holiday exception week odd day time zone',
    true,
  ),
  to(
    'w',
    'What visitors are told',
    'Setting',
    '/hours#replies',
    'replies reply after hours holiday words closed message',
  ),
  to(
    'e',
    'What would they see at …',
    'Setting',
    '/hours#would',
    'explain why told situation closed test moment',
  ),
  to(
    'gv',
    'Whose new work is',
    'Setting',
    '/business#give',
    'give rules assign member who gets counter least open',
  ),
  to('pp', 'People', 'Go to', '/people', 'everybody contacts cards groups merge join erase export', true),
  to('bi', 'Bring people in', 'Do', '/people/bring-in', 'import csv vcard table address book file'),
  to('b', 'Business', 'Go to', '/business', 'settings name mail address', true),
  to(
    's',
    'The line for your site',
    'Setting',
    '/business#sites',
    'snippet script install paste code host domain connect',
  ),
  to('y', 'House style', 'Setting', '/business#house', 'logo colours fonts brand corners'),
  to(
    'o',
    'What holds for the whole site',
    'Setting',
    '/business#site-rules',
    'groups of pages search social lists interruptions cookie notice cap',
  ),
  to(
    'x',
    'The script on your site',
    'Help',
    '/script',
    'snippet api calls events csp developer web person javascript',
  ),
  to('m', 'People of the business', 'Setting', '/business#people', 'members invite staff owner role team'),
  to('i', 'You', 'Setting', '/you', 'account own name initials address email password change profile'),
  to(
    '2',
    'A second step when signing in',
    'Setting',
    '/you#steps',
    'two-factor authenticator code recovery security 2fa',
  ),
  to(
    'z',
    'Where you are signed in',
    'Setting',
    '/you#sessions',
    'sessions devices sign out everywhere browsers security',
  ),
  to('l', 'Who did what', 'Setting', '/business#log', 'audit log history'),
  to('q', 'Questions & answers', 'Setting', '/business#questions', 'faq help'),
  to(
    'n',
    'Mail that is not on the list',
    'Go to',
    '/not-on-the-list',
    'automatic replies bounces receipts spam',
  ),
  to('u', 'What was set aside', 'Go to', '/quarantine', 'spam quarantine'),
  to('k', 'Keys of this screen', 'Help: press F1', '/follow-up', 'help shortcuts keyboard'),
]
