import type { App } from '../world'
import { slots } from '../page'
import type { Entry } from '../plan'

/** A page that takes away again and again what is put back has the last word. */
const MOST_TIMES = 20
const broughtBack = new WeakMap<Element, number>()
/** Those whose spot the page has not drawn yet. */
const waiting = new Set<Entry>()
let body: Element | null = null

/** Slots are filled, and what of ours went with a piece of the page comes back with it. */
export async function tend(app: App): Promise<void> {
  // Whoever copies a piece of the page, or keeps one of it, has of ours only the outer element.
  for (const one of document.querySelectorAll('[data-intavo-touchpoint]')) if (!one.shadowRoot) one.remove()
  for (const one of app.drawn) {
    if (one.mode !== 'inline' || one.host.isConnected) continue
    one.remove()
    app.drawn.delete(one)
  }
  const swapped = !!body && body !== document.body
  body = document.body
  for (const { shown } of app.onScreen.values()) {
    const { drawing, entry } = shown
    if (!drawing.host.isConnected) bringBack(entry, drawing.host)
    else if (!swapped) continue
    if (drawing.host.isConnected) drawing.stand()
  }
  for (const entry of waiting) {
    if (!app.entries.includes(entry)) waiting.delete(entry)
    else await inPlace(app, entry)
  }
  await fillSlots(app)
}

function bringBack(entry: Entry, host: Element): void {
  const times = broughtBack.get(host) ?? 0
  if (times >= MOST_TIMES) return
  if (entry.stance === 'in-page') atItsSpot(entry, host)
  else document.documentElement.append(host)
  if (host.isConnected) broughtBack.set(host, times + 1)
}

/**
 * Every slot of the page that nothing of ours stands in; what no plan was asked for yet is asked for at once,
 * together.
 */
async function fillSlots(app: App): Promise<void> {
  const known = (slug: string): Entry | undefined => app.entries.find((one) => one.slug === slug)
  const wanted = slots()
  const unknown = wanted.filter((slug) => !known(slug) && !app.asked.includes(slug))
  if (unknown[0]) {
    const plan = await app.ask(unknown[0])
    app.entries.push(
      ...(plan?.touchpoints ?? []).filter((one) => wanted.includes(one.slug) && !known(one.slug)),
    )
  }
  for (const slot of document.querySelectorAll<HTMLElement>('[data-intavo]')) {
    const entry = known(slot.dataset.intavo ?? '')
    if (entry && !slot.querySelector('[data-intavo-touchpoint]')) await fill(app, entry, slot)
  }
}

/** What the page has put there gives way. */
async function fill(app: App, entry: Entry, place: Element): Promise<void> {
  const given = [...place.childNodes]
  await app.put(entry, 'inline', place)
  if (place.lastElementChild?.shadowRoot) for (const one of given) one.remove()
}

/** The page of one touchpoint: its plain form gives way to the same drawing as everywhere. */
export function hostedPage(app: App): void {
  const place = document.getElementById('intavo-here')
  if (app.hosted && place) void inSlot(app, app.hosted, place).catch(() => undefined)
}

/** A touchpoint by its short name in a place of the page, whatever its stance. */
async function inSlot(app: App, slug: string, place: Element): Promise<void> {
  const entry = (await app.ask(slug))?.touchpoints.find((one) => one.slug === slug)
  if (!entry) return
  app.entries.push(entry)
  const form = place.querySelector('form')
  if (form) keepTyped(app, entry, form)
  const at = document.activeElement?.getAttribute('name')
  await fill(app, entry, place)
  if (at)
    place.lastElementChild?.shadowRoot?.querySelector<HTMLElement>(`[name="${CSS.escape(at)}"]`)?.focus()
}

/** What has been filled in of the plain form, before ours came, stands in ours. */
function keepTyped(app: App, entry: Entry, form: HTMLFormElement): void {
  const given = new FormData(form)
  const typed = {
    step: String(given.get('step')),
    answers: {} as Record<string, string>,
    consents: {} as Record<string, boolean>,
  }
  for (const part of entry.document.steps.flatMap((step) => step.parts)) {
    if (!('name' in part) || !given.has(part.name)) continue
    if (part.kind === 'consent') typed.consents[part.name] = true
    else typed.answers[part.name] = given.getAll(part.name).join('\n')
  }
  const some = Object.values({ ...typed.answers, ...typed.consents }).some(Boolean)
  if (some) app.store.keepTyped(entry.id, typed, entry.slug)
}

/** One that stands in the page: in its slot, or at the spot that was chosen for it. */
export async function inPlace(app: App, entry: Entry): Promise<boolean> {
  if (document.querySelector(`[data-intavo="${entry.slug}"]`)) return false
  const { selector } = entry.document.spot
  const found = selector ? document.querySelector(selector) : null
  if (!found) {
    waiting.add(entry)
    return false
  }
  waiting.delete(entry)
  await app.put(entry, 'live', found)
  const host = app.onScreen.get(entry.id)?.shown.drawing.host
  if (host) atItsSpot(entry, host)
  return true
}

function atItsSpot({ document: { spot } }: Entry, host: Element): void {
  const found = spot.selector ? document.querySelector(spot.selector) : null
  if (spot.where === 'inside') found?.append(host)
  else found?.insertAdjacentElement(spot.where === 'before' ? 'beforebegin' : 'afterend', host)
}
