import { describe, expect, it } from 'vitest'
import { open, screen, sentTo, shows, user, waitFor } from '@/testing/open'
import { answering, api, sent } from '@/testing/server'

const asked = () => sent.filter((one) => one.path === '/api/rehearsals')

describe('a visit rehearsed', () => {
  it('is asked anew with everything that the visitor is and does', async () => {
    await open('/touchpoints/rehearse?path=/trips')
    await screen.findByRole('figure', { name: 'Tracks' })
    const before = asked().length
    await user.selectOptions(screen.getByLabelText('Device'), 'phone')
    await waitFor(() => expect(asked().length).toBeGreaterThan(before))
    await waitFor(() => expect(asked().at(-1)?.body).toMatchObject({ visitor: { device: 'phone' } }))
    await user.click(screen.getByRole('button', { name: '+ Add something they do' }))
    await waitFor(() => expect(screen.getAllByLabelText(/^Deed \d: what$/).length).toBeGreaterThan(3))
  })

  it('is kept by a name, and compared with another', async () => {
    answering(
      api.post('/api/rehearsal-visitors', ({ response }) =>
        response(201).json({ id: 3, name: 'Maya, on a phone', visitor: {} } as never),
      ),
    )
    await open('/touchpoints/rehearse?path=/trips')
    await screen.findByRole('figure', { name: 'Tracks' })
    await user.type(screen.getByLabelText('Name to keep this visitor by'), 'Maya, on a phone')
    await user.click(screen.getByRole('button', { name: 'Keep' }))
    expect(await sentTo('POST', '/api/rehearsal-visitors')).toMatchObject({ name: 'Maya, on a phone' })
    await shows(/is kept/)
    await user.click(screen.getByRole('button', { name: 'Compare with another visitor' }))
    await waitFor(() => expect(screen.getAllByRole('figure')).toHaveLength(2))
  })
})
