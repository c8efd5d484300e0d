import { describe, expect, it } from 'vitest'
import { open, screen, sentTo, shows, user } from '@/testing/open'
import { answering, api, refused } from '@/testing/server'

const COPY = { id: 7, out: true, size: 4096, told: [], at: '2026-11-24T14:05:00Z' }

describe('a copy of everything', () => {
  it('is heard of where it was asked for before the page knew which copies there are', async () => {
    let asked = 0
    let answerFirst = () => {}
    answering(
      api.get('/api/copies', async ({ response }) => {
        asked += 1
        // The first answer was written down before the copy was asked for, and arrives after it.
        if (asked === 1) {
          await new Promise<void>((go) => (answerFirst = go))
          return response(200).json({ empty: false, copies: [] })
        }
        return response(200).json({
          empty: false,
          copies: [{ ...COPY, state: asked < 4 ? 'working' : 'ready' }],
        })
      }),
      api.post('/api/copies', ({ response }) => {
        setTimeout(answerFirst, 50)
        return response(201).json({ ...COPY, size: 0, state: 'working' })
      }),
    )
    await open('/business')
    await user.click(await screen.findByRole('button', { name: 'Make a copy' }))
    await sentTo('POST', '/api/copies')
    const link = await screen.findByRole('link', { name: 'Take it' }, { timeout: 8_000 })
    expect(link.getAttribute('href')).toBe('/api/copies/7/file')
    await shows(/4 KB/)
  })

  it('that could not be made says so', async () => {
    answering(
      api.post('/api/copies', () => refused(422, 'A copy is being worked on; wait until that is done.')),
    )
    await open('/business')
    await user.click(await screen.findByRole('button', { name: 'Make a copy' }))
    expect((await screen.findAllByRole('alert'))[0]!.textContent).toMatch(/being worked on/)
  })
})
