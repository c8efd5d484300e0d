import { http, HttpResponse } from 'msw'
import { describe, expect, it } from 'vitest'
import { open, screen, sentTo, shows, user, within } from '@/testing/open'
import { answer, answering, api } from '@/testing/server'

const card = async (name: string) => within(await screen.findByRole('article', { name }))

describe('what is one’s own', () => {
  it('is a name', async () => {
    answering(api.put('/api/me', ({ response }) => response(204).empty()))
    await open('/you')
    const form = await card('Your name')
    const name = form.getByLabelText('Name')
    await user.clear(name)
    await user.type(name, 'Morwenna H.')
    await user.click(form.getByRole('button', { name: 'Keep' }))
    expect(await sentTo('PUT', '/api/me')).toMatchObject({ name: 'Morwenna H.' })
  })

  it('is a password, of which the old one has to be right', async () => {
    answering(
      http.post('*/_allauth/browser/v1/account/password/change', () =>
        HttpResponse.json(
          {
            status: 400,
            errors: [
              {
                code: 'enter_current_password',
                param: 'current_password',
                message: 'This is not your password.',
              },
            ],
          },
          { status: 400 },
        ),
      ),
    )
    await open('/you')
    const form = await card('Your password')
    await user.type(form.getByLabelText('The one you have'), 'wrong')
    await user.type(form.getByLabelText('The new one'), 'another long enough one')
    await user.click(form.getByRole('button', { name: 'Change it' }))
    await shows('This is not your password.')
  })

  it('is what one is told of', async () => {
    answering(api.put('/api/me/told', ({ response }) => response(200).json(answer('/api/me/told') as never)))
    await open('/you')
    const boxes = within(await screen.findByRole('article', { name: /told/i })).getAllByRole('checkbox')
    await user.click(boxes[0]!)
    await sentTo('PUT', '/api/me/told')
  })
})
