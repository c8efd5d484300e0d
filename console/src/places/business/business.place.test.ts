import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { open, screen, sentTo, shows, user, waitFor, within } from '@/testing/open'
import { answer, answering, api, refused } from '@/testing/server'

const [site] = answer<Schemas['SiteOut'][]>('/api/sites')
const inside = async (name: string | RegExp) => within(await screen.findByRole('article', { name }))

describe('a site', () => {
  it('says at its place which address is none, and takes any spelling', async () => {
    answering(
      api.put('/api/sites/{site_id}', () =>
        refused(422, 'Something is not right.', {
          'hosts.2': '“otter wick” is not the address of a web site; write it like otterwick.example',
        }),
      ),
    )
    await open('/business')
    await user.type(await screen.findByLabelText('Address 3'), 'otter wick')
    await user.click(await screen.findByRole('button', { name: 'Save the site' }))
    await shows(/“otter wick” is not the address of a web site/)
    expect((screen.getByLabelText('Address 3') as HTMLInputElement).value).toBe('otter wick')
    answering(api.put('/api/sites/{site_id}', ({ response }) => response(200).json(site! as never)))
    await user.click(screen.getByRole('button', { name: 'Save the site' }))
    expect(await sentTo('PUT', `/api/sites/${site!.id}`)).toMatchObject({ name: site!.name })
  })

  it('has rules, of which what is refused is said with its field', async () => {
    answering(
      api.put('/api/sites/{site_id}/rules', () =>
        refused(422, 'Something is not right.', { give_way_to: 'give_way_to: “div[” cannot be read' }),
      ),
    )
    await open('/business')
    await user.click((await screen.findAllByText(/Showing on this site/))[0]!)
    await user.type(screen.getByLabelText('Search sites: add'), 'https://www.Lookup.example/q{Enter}')
    await user.type(screen.getByLabelText('Elements of the site that go first: add'), 'div[[{Enter}')
    await user.click(screen.getByRole('button', { name: 'Save what holds for the site' }))
    const body = JSON.stringify(await sentTo('PUT', `/api/sites/${site!.id}/rules`))
    expect(body).toContain('Lookup.example')
    expect(body).toContain('div[')
    await shows(/cannot be read/)
    await user.click(screen.getByRole('button', { name: /Elements of the site that go first: leave out/ }))
    expect(screen.queryByRole('button', { name: /Elements of the site that go first: leave out/ })).toBeNull()
  })

  it('has a house style that is kept', async () => {
    answering(api.put('/api/sites/{site_id}/house', ({ response }) => response(200).json(site! as never)))
    await open('/business')
    const corners = await screen.findByLabelText('Corners of the house style')
    await user.clear(corners)
    await user.type(corners, '12')
    await user.tab()
    await user.click(screen.getByRole('button', { name: 'Keep the house style' }))
    expect(JSON.stringify(await sentTo('PUT', `/api/sites/${site!.id}/house`))).toContain('12')
  })

  it('is one of several: another is added', async () => {
    answering(api.post('/api/sites', ({ response }) => response(201).json({ ...site!, id: 9 } as never)))
    await open('/business')
    await user.click(await screen.findByRole('button', { name: '+ Another site' }))
    await user.type(screen.getByLabelText('Address of the site'), 'shop.otterwick.example')
    await user.click(screen.getByRole('button', { name: 'Add it' }))
    expect(JSON.stringify(await sentTo('POST', '/api/sites'))).toContain('shop.otterwick.example')
  })

  it('has its line mailed to whoever keeps it', async () => {
    answering(
      api.post('/api/sites/{site_id}/instructions', () =>
        refused(422, 'Something is not right.', { to: 'This address has not confirmed anything to us' }),
      ),
    )
    await open('/business')
    await user.click(await screen.findByText('How to put it in, or have somebody do it'))
    await user.type(screen.getByLabelText('Address of whoever keeps your site'), 'kim@keeper.example')
    await user.click(screen.getByRole('button', { name: 'Mail them how' }))
    await shows(/has not confirmed anything to us/)
  })
})

describe('questions and answers', () => {
  it('are added, changed and taken out', async () => {
    const [question] = answer<Schemas['QuestionOut'][]>('/api/questions')
    answering(
      api.post('/api/questions', ({ response }) => response(201).json(question! as never)),
      api.put('/api/questions/{question_id}', ({ response }) => response(200).json(question! as never)),
      api.delete('/api/questions/{question_id}', ({ response }) => response(204).empty()),
    )
    await open('/business')
    const text = question!.question
    await user.click(await screen.findByRole('button', { name: `Change “${text}”` }))
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    expect(await sentTo('PUT', `/api/questions/${question!.id}`)).toMatchObject({ question: text })
  })
})

describe('people of the business', () => {
  it('are invited by their address, and a role is changed', async () => {
    const members = answer<Schemas['MemberOut'][]>('/api/members')
    answering(
      api.post('/api/invitations', ({ response }) =>
        response(201).json({ id: 3, email: 'ivy@post.example', name: 'Ivy', role: 'staff' } as never),
      ),
      api.put('/api/members/{member_id}', ({ response }) => response(200).json(members[1]! as never)),
    )
    await open('/business')
    const people = await inside('People of the business')
    await user.type(people.getByLabelText('Email'), 'ivy@post.example')
    await user.type(people.getByLabelText('Name'), 'Ivy')
    await user.click(people.getByRole('button', { name: 'Invite' }))
    expect(await sentTo('POST', '/api/invitations')).toMatchObject({ email: 'ivy@post.example', name: 'Ivy' })
    const role = people.getAllByLabelText(/^Role of/).at(-1)! as HTMLSelectElement
    await user.selectOptions(role, 'manager')
    await waitFor(async () =>
      expect(JSON.stringify(await sentTo('PUT', `/api/members/${members[2]!.id}`))).toContain('manager'),
    )
  })
})

describe('whose new work is', () => {
  it('is a list of rules, of which each change is kept', async () => {
    answering(api.put('/api/give-rules', ({ response }) => response(204).empty()))
    await open('/business')
    const card = await inside('Whose new work is')
    await user.click(card.getByRole('button', { name: '+ Rule' }))
    expect(JSON.stringify(await sentTo('PUT', '/api/give-rules'))).toContain('rules')
  })
})

describe('who did what', () => {
  it('is asked for by what was done', async () => {
    const asked: string[] = []
    answering(
      api.get('/api/audit', ({ query, response }) => {
        asked.push(query.get('verb') ?? '')
        return response(200).json(answer('/api/audit'))
      }),
    )
    await open('/business')
    const log = await inside('Who did what')
    const verb = await waitFor(() => {
      const { options } = log.getByLabelText('What was done') as HTMLSelectElement
      if (options.length < 2) throw new Error('not there yet')
      return options[1]!.value
    })
    await user.selectOptions(log.getByLabelText('What was done'), verb)
    await waitFor(() => expect(asked).toContain(verb))
  })
})

describe('answers by mail', () => {
  it('come to an address of one’s own, unless they are not wanted there', async () => {
    const row = { ...answer<Schemas['MailInOut']>('/api/mail-in'), address: '', direct: true }
    const own = 'otterwick@in.intavo.example'
    answering(
      api.get('/api/mail-in', ({ response }) => response(200).json({ ...row, own })),
      api.put('/api/mail-in', ({ response }) => response(200).json({ ...row, own, direct: false })),
    )
    await open('/business')
    await shows(own)
    await user.click(screen.getByRole('checkbox', { name: /Answers come to this address/ }))
    const form = within(screen.getByRole('form', { name: 'Answers by mail' }))
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(await sentTo('PUT', '/api/mail-in')).toEqual({ address: '', direct: false })
    await shows('Answers go where your mail is sent from.')
  })
})
