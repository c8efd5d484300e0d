import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { router } from '@/router'
import { gone, open, screen, sentTo, shows, user, waitFor, within } from '@/testing/open'
import { answer, answering, api, refused, sent } from '@/testing/server'

const ONE = '/api/follow-ups/34'
const one = answer<Schemas['OneOut']>(ONE)
const name = one.name
const box = () => screen.findByRole('textbox', { name: `Answer to ${name}` })

describe('the list', () => {
  it('is narrowed by a sentence that stands in the address, and kept by a name', async () => {
    answering(
      api.post('/api/kept-filters', ({ response }) =>
        response(200).json({ id: 4, name: 'Questions' } as never),
      ),
    )
    await open('/follow-up')
    await user.selectOptions(await screen.findByLabelText('What'), 'inquiry')
    await waitFor(() => expect(location.search).toContain('inquiry'))
    await user.click(screen.getByRole('button', { name: 'Keep this filter' }))
    await user.type(screen.getByLabelText('Its name'), 'Questions')
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    expect(await sentTo('POST', '/api/kept-filters')).toMatchObject({ name: 'Questions' })
    await user.click(screen.getByRole('button', { name: 'Show everything open' }))
    await waitFor(() => expect(location.search).not.toContain('inquiry'))
  })

  it('is read again where something came in while it was being read', async () => {
    let read = 0
    answering(
      api.get('/api/follow-ups', ({ response }) => {
        read += 1
        return response(200).json({ ...answer<Schemas['ListOut']>('/api/follow-ups'), stamp: `${read}` })
      }),
      api.get('/api/follow-ups-stamp', ({ response }) => response(200).json('2')),
    )
    await open('/follow-up')
    await waitFor(() => expect(read).toBe(2))
  })
})

describe('several', () => {
  it('are counted before anything is done to all that match, and what was done is taken back for a day', async () => {
    const done = { id: 7, at: '2026-11-24T13:05:00Z', by: 'Jory', count: 143, words: 'finished: won' }
    answering(
      api.get('/api/follow-ups-count', ({ response }) => response(200).json(143)),
      api.get('/api/several-follow-ups', ({ response }) =>
        response(200).json([{ ...done, undone: false, undoable: true }]),
      ),
      api.post('/api/several-follow-ups', ({ response }) =>
        response(200).json({ done: [34], left: [], before: [], batch: 7 }),
      ),
      api.post('/api/several-follow-ups/{batch_id}/undo', ({ response }) =>
        response(200).json({ done: [], left: [{ id: 34, why: 'Done since.' }], before: [], batch: null }),
      ),
    )
    await open('/follow-up/34')
    await waitFor(() => expect(document.querySelector('[data-id]')).not.toBeNull())
    document.querySelector<HTMLElement>('[data-id]')!.focus()
    await user.keyboard('x')
    const bar = within(await screen.findByRole('region', { name: /all that are chosen/ }))
    expect(bar.getByRole('status').textContent).toContain('one chosen')
    await user.click(bar.getByLabelText(/all that match/))
    await waitFor(() => expect(bar.getByRole('status').textContent).toContain('143 chosen'))
    await user.click(bar.getByRole('button', { name: /Finish/ }))
    await user.click(await screen.findByRole('menuitem', { name: 'Won' }))
    expect(await sentTo('POST', '/api/several-follow-ups')).toMatchObject({
      do: 'finish',
      all_of: { state: 'open' },
    })
    await user.click(screen.getByRole('button', { name: /Done to several/ }))
    const list = within(await screen.findByRole('list', { name: /within the last day/ }))
    await user.click(list.getByRole('button', { name: 'Undo' }))
    await sentTo('POST', '/api/several-follow-ups/7/undo')
    await shows(/one left as it was: Done since\./)
  })
})

describe('one follow-up', () => {
  it('is answered, and then it is their turn', async () => {
    answering(
      api.post('/api/follow-ups/{followup_id}/answer', ({ response }) =>
        response(200).json({ ...one, state: 'for-them' } as never),
      ),
    )
    await open('/follow-up/34')
    await user.type(await box(), 'It is, with a guide.')
    await user.keyboard('{Control>}{Enter}{/Control}')
    expect(await sentTo('POST', `${ONE}/answer`)).toMatchObject({
      text: 'It is, with a guide.',
      then: 'wait',
    })
    await shows(/is on its way/)
    await waitFor(async () => expect(((await box()) as HTMLTextAreaElement).value).toBe(''))
  })

  it('takes the words that are typed before it has been read', async () => {
    let through = () => {}
    answering(
      api.get('/api/follow-ups/{followup_id}', async ({ params, response }) => {
        if (params.followup_id !== '34') await new Promise<void>((go) => (through = go))
        return response(200).json({ ...one, id: Number(params.followup_id), draft: '' })
      }),
    )
    await open('/follow-up/34')
    await box()
    const rows = () => document.querySelectorAll<HTMLElement>('[data-id]')
    await waitFor(() => expect(rows().length).toBeGreaterThan(2))
    rows()[0]!.focus()
    await user.keyboard('{ArrowDown}{Enter}Yes, from ten.')
    through()
    await waitFor(async () => expect(((await box()) as HTMLTextAreaElement).value).toBe('Yes, from ten.'))
    expect(document.activeElement).toBe(await box())
  })

  it('is finished, put off, given, tagged and noted by one key each', async () => {
    await open('/follow-up/34')
    await box()
    const rows = () => document.querySelectorAll<HTMLElement>('[data-id]')
    await waitFor(() => expect(rows().length).toBeGreaterThan(2))
    const press = async (key: string) => {
      rows()[0]!.focus()
      await user.keyboard(key)
    }
    await press('f')
    await screen.findByRole('menuitem', { name: 'Won' })
    await press('p')
    await shows(/tomorrow/i)
    await press('g')
    expect(document.activeElement).toBe(screen.getByLabelText('Whose'))
    await press('t')
    expect(document.activeElement?.getAttribute('data-key')).toBe('t')
    await press('n')
    await waitFor(() => expect((screen.getByLabelText('How') as HTMLSelectElement).value).toBe('note'))
    expect(document.activeElement).toBe(await box())
  })

  it('may be left while its answer is sent: the draft goes with the sending, and other words are another answer', async () => {
    let through = () => {}
    const bodies: { key: string; text: string }[] = []
    answering(
      api.post('/api/follow-ups/{followup_id}/answer', async ({ request, response }) => {
        bodies.push((await request.json()) as never)
        await new Promise<void>((go) => (through = go))
        return response(200).json({ ...one, state: 'for-them', draft: '' } as never)
      }),
    )
    await open('/follow-up/34')
    await user.type(await box(), 'It is, with a guide.')
    await user.keyboard('{Control>}{Enter}{/Control}')
    await waitFor(() => expect(bodies).toHaveLength(1))
    await router.push('/hours')
    await gone(() => screen.queryByRole('textbox', { name: `Answer to ${name}` }))
    const kept = sent.filter((each) => each.path === `${ONE}/desk` && each.method === 'POST')
    through()
    await shows(/is on its way/)
    await waitFor(() => expect(sessionStorage.getItem('answer-34')).toBeNull())
    await router.push('/follow-up/34')
    expect(((await box()) as HTMLTextAreaElement).value).toBe('')
    expect(kept.at(-1)?.body).not.toMatchObject({ draft: 'It is, with a guide.' })
    await user.type(await box(), 'And bring a coat.')
    await user.keyboard('{Control>}{Enter}{/Control}')
    await waitFor(() => expect(bodies).toHaveLength(2))
    expect(bodies[1]!.key).not.toBe(bodies[0]!.key)
    through()
  })

  it('keeps the words where sending is refused', async () => {
    answering(
      api.post('/api/follow-ups/{followup_id}/answer', () =>
        refused(422, 'They do not want mail.', { text: 'They do not want mail.' }),
      ),
    )
    await open('/follow-up/34')
    await user.type(await box(), 'Kept words')
    await user.click(screen.getByRole('button', { name: /^Send/ }))
    await shows(/They do not want mail/)
    expect(((await box()) as HTMLTextAreaElement).value).toBe('Kept words')
  })

  it('takes a note for ourselves alone', async () => {
    answering(
      api.post('/api/follow-ups/{followup_id}/note', ({ response }) => response(200).json(one as never)),
    )
    await open('/follow-up/34')
    await user.selectOptions(await screen.findByLabelText('How'), 'as a note')
    await user.type(await box(), 'Rang; will ring again')
    await user.click(screen.getByRole('button', { name: /^Keep/ }))
    expect(await sentTo('POST', `${ONE}/note`)).toMatchObject({ text: 'Rang; will ring again' })
  })

  it.each([
    ['Finish', 'Won', 'finish', { outcome: 'won' }],
    ['Finish', 'Not a fit', 'finish', { outcome: 'not-a-fit' }],
  ])('%s: %s', async (button, item, path, body) => {
    answering(
      api.post('/api/follow-ups/{followup_id}/finish', ({ response }) =>
        response(200).json({ ...one, state: 'finished' } as never),
      ),
    )
    await open('/follow-up/34')
    await user.click(await screen.findByRole('button', { name: new RegExp(`^${button}`) }))
    await user.click(await screen.findByRole('menuitem', { name: item }))
    expect(await sentTo('POST', `${ONE}/${path}`)).toMatchObject(body)
    await shows(/^Finished/)
  })

  it('is put off until the next opening, or until a time', async () => {
    answering(
      api.post('/api/follow-ups/{followup_id}/put-off', ({ response }) =>
        response(200).json({ ...one, state: 'put-off' } as never),
      ),
    )
    await open('/follow-up/34')
    await user.click(await screen.findByRole('button', { name: /^Put off/ }))
    await user.click(await screen.findByRole('button', { name: /^Next opening/ }))
    await sentTo('POST', `${ONE}/put-off`)
    await shows(/^Put off/)
  })

  it('is tagged, and given to a colleague', async () => {
    answering(
      api.post('/api/follow-ups/{followup_id}/tag', ({ response }) => response(200).json(one as never)),
      api.post('/api/follow-ups/{followup_id}/give', ({ response }) => response(200).json(one as never)),
    )
    await open('/follow-up/34')
    await user.type(await screen.findByLabelText('Another tag'), 'school{Enter}')
    expect(await sentTo('POST', `${ONE}/tag`)).toMatchObject({ tag: 'school' })
    const whose = screen.getByLabelText('Whose') as HTMLSelectElement
    const jory = [...whose.options].find((option) => option.text.includes('Jory'))!
    await user.selectOptions(whose, jory.value)
    await sentTo('POST', `${ONE}/give`)
  })

  it('has kept answers that are found, made and taken', async () => {
    answering(
      api.post('/api/kept-answers', ({ response }) =>
        response(200).json({ id: 5, name: 'Opening', text: [], scope: 'own' } as never),
      ),
    )
    await open('/follow-up/34')
    await user.click(await box())
    await user.keyboard('/')
    const kept = within(await screen.findByRole('region', { name: 'Kept answers' }))
    await user.click(kept.getByRole('button', { name: '+ Kept answer' }))
    await user.type(kept.getByLabelText('Its name'), 'Opening')
    await user.click(kept.getByRole('button', { name: 'Keep it' }))
    await waitFor(() =>
      expect(
        sent.some((each) => each.path === '/api/kept-answers') || kept.queryByRole('alert'),
      ).toBeTruthy(),
    )
  })
})
