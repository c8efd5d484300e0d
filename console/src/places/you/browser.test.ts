import { expect, it } from 'vitest'
import { browserOf } from './browser'

it.each([
  ['Mozilla/5.0 (X11; Linux x86_64) Engine/1.0', 'Computer (X11; Linux x86_64)'],
  ['Mozilla/5.0 (Linux; Android 14; Some Phone) Engine/1.0 Mobile', 'Phone (Linux; Android 14)'],
  ['Mozilla/5.0 (Tablet; OS 17_0) Engine/1.0', 'Tablet (Tablet; OS 17_0)'],
  ['a-script/2.1', 'a-script/2.1'],
  ['', 'A browser that does not say what it is'],
])('says what a browser runs on: %s', (agent, said) => {
  expect(browserOf(agent)).toBe(said)
})
