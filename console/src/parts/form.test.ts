// @vitest-environment jsdom
import { expect, test } from 'vitest'
import { inside } from './form'

test('after signing in one goes on inside the console alone', () => {
  expect(inside('/business?x=1#people')).toBe('/business?x=1#people')
  for (const next of [
    '//elsewhere.example',
    '/\\elsewhere.example',
    '/\t/elsewhere.example',
    '\\\\elsewhere.example',
    'https://elsewhere.example',
    'javascript:alert(1)',
    'elsewhere',
    '',
    ['/a'],
    undefined,
    null,
  ])
    expect(inside(next)).toBe('/follow-up')
})
