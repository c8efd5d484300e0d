import { expect, it } from 'vitest'
import CASES from '../../../tests/vectors/leading/steps.json'
import type { SeenDocument, Step } from '../render/types'
import { nextStep, stepOf, takesNameless } from './flow'

const step = (...parts: object[]) => ({ id: 'ask', name: '', parts }) as unknown as Step
const SCORE = { kind: 'score', name: 's', bands: [{ least: 0, most: 6, next: 'sorry' }, { least: 7, most: 10, next: 'glad' }] } // prettier-ignore

it.each(CASES)('$name', ({ parts, answers, next }) => {
  expect(nextStep(step(...parts), answers as Record<string, string>)).toBe(next)
})

it('finds the step that a field stands in', () => {
  const document = {
    steps: [step(SCORE), { ...step({ kind: 'field', name: 'email' }), id: 'reach' }],
  } as unknown as SeenDocument
  expect(stepOf(document, 'email')).toBe('reach')
  expect(stepOf(document, 'phone')).toBeUndefined()
})

it('takes answers without an address but for sign-ups and inquiries', () => {
  const takes = (purpose: string) => takesNameless({ purpose } as SeenDocument)
  expect(['sign-up', 'inquiry', 'feedback', 'question'].map(takes)).toEqual([false, false, true, true])
})
