import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { open, screen, sentTo, shows, user } from '@/testing/open'
import { answer, answering, api, refused } from '@/testing/server'

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

describe('room', () => {
  it('that is nearly used up is said on the day line, and shown beside the rest', async () => {
    answering(
      api.get('/api/day', ({ response }) =>
        response(200).json({
          ...answer<Schemas['DayOut']>('/api/day'),
          nearly_full: ['17 GB of files, of 20 GB'],
        }),
      ),
      api.get('/api/room', ({ response }) =>
        response(200).json([
          { kind: 'files', used: 17, most: 20, near: true, words: '17 GB of files, of 20 GB' },
          { kind: 'people', used: 12, most: 0, near: false, words: '12 people' },
        ]),
      ),
    )
    await open('/business')
    const link = await screen.findByRole('link', { name: '17 GB of files, of 20 GB' })
    expect(link.getAttribute('href')).toBe('/business#room')
    const card = (await screen.findByRole('heading', { name: 'Room' })).closest('article')!
    await shows(/12 people/)
    expect([...card.querySelectorAll('li')].map((one) => one.classList.contains('text-rust'))).toEqual([
      true,
      false,
    ])
  })
})
