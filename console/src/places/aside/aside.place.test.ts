import { expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { open, screen, sentTo, shows, user, waitFor } from '@/testing/open'
import { answering, api } from '@/testing/server'

const mail = (id: number, name: string, said: string): Schemas['AsideOut'] => ({
  id,
  received_at: '2026-11-24T13:00:00Z',
  sender: `${id}@post.example`,
  name,
  subject: 'Away',
  said,
  kind: 'auto-reply',
  became: 'noted',
  looked: false,
  files: [],
})

it('is looked through, searched, and taken up by one key', async () => {
  const asked: (string | null)[] = []
  answering(
    api.get('/api/mail-aside', ({ query, response }) => {
      const q = query.get('q') ?? ''
      asked.push(q)
      const all = [mail(9, 'Quill', 'Back in May'), mail(7, 'Ife', 'At sea')]
      return response(200).json(all.filter((one) => one.said.includes(q)))
    }),
    api.post('/api/mail-aside/looked', ({ response }) => response(204).empty()),
    api.post('/api/mail-aside/{mail_id}/take-up', ({ response }) => response(200).json({ followup_id: 34 })),
  )
  await open('/not-on-the-list')
  await shows('Back in May')
  expect(await sentTo('POST', '/api/mail-aside/looked')).toEqual({ through: 9 })
  await user.type(screen.getByLabelText('Search these mails'), 'sea')
  await waitFor(() => expect(screen.queryByText('Back in May')).toBeNull())
  expect(asked).toContain('sea')
  screen.getByText('At sea').closest('li')!.focus()
  await user.keyboard('t')
  await sentTo('POST', '/api/mail-aside/7/take-up')
  await shows('It is on the list.')
  await waitFor(() => expect(location.pathname).toBe('/follow-up/34'))
})
