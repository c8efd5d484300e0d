import { expect, it } from 'vitest'
import type { SeenDocument, Step } from '../render/types'
import { nextStep, stepOf, takesNameless } from './flow'

const step = (...parts: object[]) => ({ id: 'ask', name: '', parts }) as unknown as Step
const SCORE = { kind: 'score', name: 's', bands: [{ least: 0, most: 6, next: 'sorry' }, { least: 7, most: 10, next: 'glad' }] } // prettier-ignore
const CHOICE = { kind: 'question', name: 'q', options: [{ value: 'a', next: 'one' }, { value: 'b', next: null }] } // prettier-ignore
const SEND = { kind: 'button', does: { action: 'send', next: 'thanks' } }

it.each([
  [step(SCORE), { s: '3' }, 'sorry'],
  [step(SCORE), { s: '7' }, 'glad'],
  [step(SCORE), {}, null],
  [step(CHOICE, SEND), { q: 'a' }, 'one'],
  [step(CHOICE, SEND), { q: 'b' }, 'thanks'],
  [step({ ...CHOICE, hidden: true }, SEND), { q: 'a' }, 'thanks'],
  [step({ ...CHOICE, kind: 'field' }), { q: 'a' }, 'one'],
  [step({ kind: 'button', does: { action: 'close', next: null } }), {}, null],
  [step({ ...SEND, hidden: true }), {}, null],
])('case %#', (at, answers, next) => expect(nextStep(at, answers as Record<string, string>)).toBe(next))

it('finds the step that a field stands in', () => {
  const document = { steps: [step(SCORE), { ...step({ kind: 'field', name: 'email' }), id: 'reach' }] } as unknown as SeenDocument
  expect(stepOf(document, 'email')).toBe('reach')
  expect(stepOf(document, 'phone')).toBeUndefined()
})

it('takes answers without an address but for sign-ups and inquiries', () => {
  const takes = (purpose: string) => takesNameless({ purpose } as SeenDocument)
  expect(['sign-up', 'inquiry', 'feedback', 'question'].map(takes)).toEqual([false, false, true, true])
})
