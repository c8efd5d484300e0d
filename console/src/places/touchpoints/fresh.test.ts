import { describe, expect, it } from 'vitest'
import { offered } from '@/api/parts.json'
import { dropStep, freshPart, freshStep, thanksOf } from './fresh'
import type { Part, TouchpointDocument } from '@/api/document'

const part = (id: string, more: object) =>
  ({ id, on: ['desktop', 'phone'], hidden: false, row: null, share: 100, ...more }) as unknown as Part

const THANKS = [part('p', { kind: 'headline', text: 'Thank you' }), part('p', { kind: 'reply' })]

function document(...steps: [string, Part[]][]): TouchpointDocument {
  const after = { confirm: { next: null } }
  return {
    steps: steps.map(([id, parts]) => ({ id, name: id, parts })),
    after,
  } as unknown as TouchpointDocument
}

describe('a part of its own', () => {
  it('has an id and a name that nothing else has, in any step', () => {
    const before = document(
      ['ask', [part('p1', { kind: 'field', name: 'email' })]],
      ['thanks', [part('p2', { kind: 'line' })]],
    )
    const fresh = freshPart(before, part('p', { kind: 'field', input: 'email', name: 'email' }))
    expect([fresh.id, 'name' in fresh && fresh.name]).toEqual(['p3', 'email1'])
  })

  it('is a copy that shares nothing with its pattern', () => {
    const pattern = { kind: 'question', name: 'q', options: [{ value: 'a', label: 'A', next: null }] }
    const fresh = freshPart(document(['ask', []]), part('p', pattern))
    if (fresh.kind === 'question' && fresh.options[0]) fresh.options[0].label = 'B'
    expect(pattern.options[0]?.label).toBe('A')
  })

  const PATTERNS = Object.values(offered).flatMap((group) =>
    Object.entries(group as unknown as Record<string, Part>),
  )

  it.each(PATTERNS)('%s can be added twice', (_, pattern) => {
    const before = document(['ask', []])
    const first = freshPart(before, pattern)
    before.steps[0]?.parts.push(first)
    const second = freshPart(before, pattern)
    expect(second.id).not.toBe(first.id)
    if ('name' in first && 'name' in second) expect(second.name).not.toBe(first.name)
  })
})

describe('a step', () => {
  it('that is new has an id of its own and a headline', () => {
    const before = document(['ask', []], ['step', []])
    const fresh = freshStep(before, [part('p', { kind: 'headline', text: 'And then' })])
    expect([fresh.id, fresh.parts[0]?.kind]).toEqual(['step1', 'headline'])
  })

  it('that goes leaves nothing that leads to it', () => {
    const does = { action: 'step', next: 'middle' }
    const before = document(
      ['ask', [part('p1', { kind: 'button', does: { ...does } }), part('p2', { kind: 'question', name: 'q', options: [{ value: 'a', next: 'middle' }] }), part('p3', { kind: 'score', name: 's', bands: [{ least: 0, most: 6, next: 'middle' }] }), part('p4', { kind: 'links', items: [{ label: 'x', does: { ...does } }] })]],
      ['middle', []],
      ['thanks', []],
    ) // prettier-ignore
    dropStep(before, 'middle')
    expect(before.steps.map((one) => one.id)).toEqual(['ask', 'thanks'])
    expect(JSON.stringify(before)).not.toContain('middle')
    expect(JSON.stringify(before).match(/"next":"thanks"/g)).toHaveLength(4)
  })

  it('that is the last one stays', () => {
    const before = document(['ask', []])
    dropStep(before, 'ask')
    expect(before.steps).toHaveLength(1)
  })

  it('at the end takes the rows of a score that led to it along', () => {
    const before = document(
      ['ask', [part('p1', { kind: 'score', name: 's', bands: [{ least: 0, most: 6, next: 'end' }] })]],
      ['end', []],
    )
    dropStep(before, 'end')
    const score = before.steps[0]?.parts[0]
    expect(score?.kind === 'score' && score.bands).toEqual([])
  })
})

describe('what sends', () => {
  it('leads to a step that thanks, which is there once', () => {
    const empty = document(['ask', []])
    expect([thanksOf(empty, THANKS), thanksOf(empty, THANKS)]).toEqual(['thanks', 'thanks'])
    expect(empty.steps.map((one) => one.parts.map((part) => part.kind))).toEqual([[], ['headline', 'reply']])
  })
})
