import { http, HttpResponse } from 'msw'
import { expect, it } from 'vitest'
import { answer, answering } from '@/testing/server'
import { nobodyIsIn } from './client'

it.each([
  ['nobody is signed in', HttpResponse.json({}, { status: 401 }), true],
  ['somebody belongs to no business any more', HttpResponse.json({ business: null }), true],
  ['the session has only another name', HttpResponse.json(answer<object>('/api/me')), false],
  ['there is no network', HttpResponse.error(), false],
])('is asked once more before the page is left: %s', async (_, said, left) => {
  answering(http.get('*/api/me', () => said as HttpResponse<null>))
  expect(await nobodyIsIn()).toBe(left)
})
