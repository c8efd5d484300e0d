import { CHANNEL_ICONS } from '@/lib/names'
import type { ChannelDocument } from '@/api/channels'

export const KINDS: Record<ChannelDocument['kind'], string> = {
  phone: 'Phone call',
  text: 'Text message',
  mail: 'Mail',
  'message-link': 'Message link',
  map: 'Place on a map',
  page: 'Web page',
  matrix: 'Matrix',
  xmpp: 'XMPP',
  sip: 'SIP call',
}
/** What each kind asks for. */
export const HANDLES: Record<string, [string, string]> = {
  phone: ['Number', 'as people dial it'],
  text: ['Number', 'as people dial it'],
  mail: ['Mail address', 'you@your-business.example'],
  'message-link': ['Your handle there', 'your-handle'],
  map: ['Place, as coordinates or a street', '50.1234, -5.1234'],
  page: ['Address', 'https://…'],
  matrix: ['Address', '@you:example.org'],
  xmpp: ['Address', 'you@example.org'],
  sip: ['Address', 'you@example.org'],
}
export const ICONS: Record<string, string> = {
  call: 'call',
  write: 'write',
  text: 'text',
  chat: 'chat',
  find: 'find',
  visit: 'visit',
  book: 'book',
  pay: 'pay',
  follow: 'follow',
}
export const WITH_TEXT = ['text', 'mail', 'message-link', 'xmpp']
export const LINK_SLOTS = {
  page_title: 'title of the page',
  page_address: 'address of the page',
  short_code: 'code of the touchpoint',
}

/** A new one; `label` is what the server calls such a one in the language of the business. */
export function freshChannel(
  kind: ChannelDocument['kind'],
  label: string,
  handle: string,
  template: string | null,
): ChannelDocument {
  return {
    version: 1,
    kind,
    label,
    icon: CHANNEL_ICONS[kind] ?? 'chat',
    colour: null,
    template,
    handle,
    subject: [],
    text: [],
    people: [],
    pick: 'visitor',
    devices: ['desktop', 'phone'],
    hours: [],
    while_closed: 'say',
    opens: 'new',
    goal: true,
    gateway: null,
  }
}

/** A list with an id more, or less. */
export const ticked = (list: number[], id: number): number[] =>
  list.includes(id) ? list.filter((one) => one !== id) : [...list, id]
