import { http, HttpResponse } from 'msw'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { open, screen, sentTo, shows, user, waitFor } from '@/testing/open'
import { answer, answering, api, refused } from '@/testing/server'

const AUTH = '*/_allauth/browser/v1/auth'
const nobody = () =>
  answering(
    api.get('/api/me', () => refused(401, 'Please sign in.')),
    http.get(`${AUTH}/session`, () =>
      HttpResponse.json({ status: 401, data: { flows: [] } }, { status: 401 }),
    ),
  )

describe('signing in', () => {
  it('says that address and password do not belong together, and keeps the address', async () => {
    nobody()
    answering(
      http.post(`${AUTH}/login`, () =>
        HttpResponse.json(
          { status: 400, errors: [{ code: 'email_password_mismatch', param: 'password', message: 'no' }] },
          { status: 400 },
        ),
      ),
    )
    await open('/sign-in')
    await user.type(await screen.findByLabelText('Email'), 'morwenna@otterwick.example')
    await user.type(screen.getByLabelText('Password'), 'not it')
    await user.click(screen.getByRole('button', { name: 'Sign in' }))
    expect((await screen.findByRole('alert')).textContent).toMatch(/do not belong together|no/)
    expect((screen.getByLabelText('Email') as HTMLInputElement).value).toBe('morwenna@otterwick.example')
  })

  it('is asked for wherever nobody is signed in, and leads back there', async () => {
    nobody()
    await open('/people')
    await waitFor(() => expect(location.pathname + location.search).toContain('/sign-in?next='))
  })
})

describe('signing up', () => {
  it('says at its place what a password lacks, then where the mail is', async () => {
    nobody()
    answering(
      http.post(`${AUTH}/signup`, async ({ request }) => {
        const { password } = (await request.json()) as { password: string }
        return password.length < 10
          ? HttpResponse.json(
              {
                status: 400,
                errors: [{ code: 'short', param: 'password', message: 'It has at least 10 characters.' }],
              },
              { status: 400 },
            )
          : HttpResponse.json(
              { status: 401, data: { flows: [{ id: 'verify_email', is_pending: true }] } },
              { status: 401 },
            )
      }),
    )
    await open('/sign-up')
    await user.type(await screen.findByLabelText('Email'), 'ola@heron.example')
    await user.type(screen.getByLabelText('Password'), 'short')
    await user.click(screen.getByRole('button', { name: 'Sign up' }))
    await shows(/at least 10 characters/)
    await user.type(screen.getByLabelText('Password'), ' and then some')
    await user.click(screen.getByRole('button', { name: 'Sign up' }))
    await shows('Look in your mail')
  })
})

describe('a new password', () => {
  it('is asked for by an address', async () => {
    nobody()
    answering(http.post(`${AUTH}/password/request`, () => HttpResponse.json({ status: 200 })))
    await open('/reset')
    await user.type(await screen.findByLabelText('Email'), 'ola@heron.example')
    await user.click(screen.getByRole('button', { name: 'Send me a link' }))
    await shows(/a mail with a link is on its way/)
  })
})

describe('founding a business', () => {
  it('says at its place that an address is none', async () => {
    const me = answer<Schemas['MeOut']>('/api/me')
    answering(
      api.get('/api/me', ({ response }) =>
        response(200).json({ ...me, business: null, businesses: [] } as never),
      ),
      api.post('/api/business', () =>
        refused(422, 'Something is not right.', {
          'hosts.0': '“heron boats” is not the address of a web site',
        }),
      ),
    )
    await open('/welcome')
    await user.type(await screen.findByLabelText('What is it called?'), 'Heron Boats')
    await user.type(screen.getByLabelText('Its web site'), 'heron boats')
    await user.click(screen.getByRole('button', { name: 'Go on to the first touchpoint' }))
    expect(await sentTo('POST', '/api/business')).toMatchObject({ name: 'Heron Boats' })
    await shows(/is not the address of a web site/)
  })
})
