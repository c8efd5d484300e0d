import type { App } from '../app'
import type { Entry } from '../plan'

const filled = new WeakSet<Element>()

/** Every slot of the page that nothing of ours stands in yet; what the page has put there gives way. */
export function fillSlots(app: App): void {
  for (const slot of document.querySelectorAll<HTMLElement>('[data-intavo]')) {
    if (filled.has(slot) || slot.querySelector('[data-intavo-touchpoint]')) continue
    filled.add(slot)
    void inSlot(app, slot.dataset.intavo ?? '', slot).then((done) => done || filled.delete(slot))
  }
}

/** A touchpoint by its short name in a place of the page, whatever its stance. */
export async function inSlot(app: App, slug: string, place: Element): Promise<boolean> {
  const entry = (await app.ask(slug))?.touchpoints.find((one) => one.slug === slug)
  if (!entry) return false
  app.entries.push(entry)
  place.replaceChildren()
  await app.put(entry, 'inline', place)
  return true
}

/** One that stands in the page: in its slot, or at the spot that was chosen for it. */
export async function inPlace(app: App, entry: Entry): Promise<boolean> {
  if (document.querySelector(`[data-intavo="${entry.slug}"]`)) return false
  const { selector, where } = entry.document.spot
  const found = selector ? document.querySelector(selector) : null
  if (!found) return false
  await app.put(entry, 'live', found)
  const host = app.onScreen.get(entry.id)?.shown.drawing.host
  if (host && where !== 'inside') found.insertAdjacentElement(where === 'before' ? 'beforebegin' : 'afterend', host)
  return true
}
