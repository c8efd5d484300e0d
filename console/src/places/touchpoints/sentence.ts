import type { TouchpointDocument } from '@visitor/generated/document'

type Sentence = TouchpointDocument['show']['sentences'][number]

function list(words: string[], last: string): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${last} ${words[words.length - 1]}`
}

const say = (one: Sentence['pages'][number]) => (one.kind === 'below' && one.path !== '/' ? `${one.path} and below` : one.path)

/** "on every page", "on /trips and below and /lessons", "on every page but /contact" */
export function sayPages(sentence: Sentence): string {
  const where = sentence.pages.length ? `on ${list(sentence.pages.map(say), 'and')}` : 'on every page'
  return sentence.not_pages.length ? `${where} but ${list(sentence.not_pages.map(say), 'and')}` : where
}

/** "anyone, on any device", "anyone on a desktop or tablet" */
export function sayDevices(sentence: Sentence): string {
  return sentence.devices.length === 3 ? 'anyone, on any device' : `anyone on a ${list(sentence.devices, 'or')}`
}

const sayMoment = (one: Sentence['moments'][number][number]): string =>
  one.leave ? 'when they are about to leave' : one.after !== null ? `after ${one.after} s` : `at ${one.read} % down`

/** "after 12 s or 40 % down", "never by itself" */
export function sayMoments(sentence: Sentence): string {
  const all = sentence.moments.map((moment) => moment.map(sayMoment).join(' and '))
  return all.length ? list(all, 'or') : 'never by itself'
}

/** The moments as the small form knows them: seconds, and share of the page. */
export function momentsOf(sentence: Sentence): { after: number | null; read: number | null; leave: boolean } {
  const single = sentence.moments.filter((moment) => moment.length === 1).map((moment) => moment[0])
  return {
    after: single.find((one) => one?.after != null)?.after ?? null,
    read: single.find((one) => one?.read != null)?.read ?? null,
    leave: single.some((one) => one?.leave === true),
  }
}
