import type { ComputedRef, InjectionKey } from 'vue'
import type { FullLook } from '@/api/document'
import type { SeenDocument } from '@visitor/render'
import { HOUSE_LOGO } from './fresh'
import type { LookValues, TouchpointDocument } from '@/api/document'

/** The picture that is the logo of the first site's house style. */
export const LOGO: InjectionKey<ComputedRef<string | null>> = Symbol('logo')

function given(values: LookValues): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(values).filter(
      ([name, value]) => value !== null && !['colours', 'phone', 'house', 'css'].includes(name),
    ),
  )
}
const colours = (values: LookValues) =>
  Object.fromEntries(Object.entries(values.colours).filter((one) => one[1] !== null))

/**
 * The draft as it is drawn while it is being edited: the look that the server last worked out, with what has
 * been changed since laid over it. A moment later the server's own answer takes its place.
 */
export function seenOf(
  document: TouchpointDocument,
  worked: FullLook,
  speech: SeenDocument['speech'],
  logo: string | null = null,
): SeenDocument {
  const { look } = document
  const same = (name: string) =>
    JSON.stringify(worked.phone[name as keyof FullLook['phone']]) ===
    JSON.stringify(worked[name as keyof FullLook])
  // A phone follows the desktop, but where its stance wants something else there.
  const followed = Object.fromEntries(Object.entries(given(look)).filter(([name]) => same(name)))
  const desktop = { ...worked, ...given(look), colours: { ...worked.colours, ...colours(look) } }
  const phone = {
    ...worked.phone,
    ...followed,
    ...given(look.phone),
    colours: { ...worked.phone.colours, ...colours(look), ...colours(look.phone) },
  }
  const seen = { ...desktop, phone, css: look.css } as FullLook
  const plain = toPlain(document)
  for (const part of plain.steps.flatMap((step) => step.parts)) {
    if (part.kind === 'picture' && part.asset === HOUSE_LOGO) part.asset = logo
  }
  return { ...plain, look: seen, speech, then: { page: '', trap: false, work: false } }
}

const toPlain = (document: TouchpointDocument): TouchpointDocument =>
  JSON.parse(JSON.stringify(document)) as TouchpointDocument
