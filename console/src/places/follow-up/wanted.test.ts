import { expect, it } from 'vitest'
import { queryOf, wantedOf } from './wanted'

it('an address says what is wanted, and what cannot be meant is left out', () => {
  expect(wantedOf({ kind: 'inquiry', touchpoint: '3', member: '0', q: 'boat', since: '2026-11-01' })).toEqual({
    kind: 'inquiry', touchpoint: 3, member: 0, q: 'boat', since: '2026-11-01',
  }) // prettier-ignore
  expect(
    wantedOf({ kind: 'x', state: 'lost', member: '-1', touchpoint: '1e9', since: 'soon', q: '' }),
  ).toEqual({})
  expect(wantedOf({ tag: ['school', 'club'] })).toEqual({ tag: 'school' })
})

it('what is wanted stands in the address and is read again', () => {
  const wanted = { state: 'finished' as const, member: 0, tag: 'a & b' }
  expect(wantedOf(queryOf(wanted))).toEqual(wanted)
  expect(queryOf({ q: '', kind: undefined })).toEqual({})
})
